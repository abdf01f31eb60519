// The commands of package.json that no test calls, each in a short form and with a database of its own, so that one which no
// longer fits the rest is noticed. Part of npm test; how long anything takes fails nothing here.
import { spawnSync } from "node:child_process";
import { existsSync, mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { root } from "./setup.mjs";

const folder = mkdtempSync(join(tmpdir(), "derrick-short-"));
const copy = join(folder, "copy.db");
const env = { DERRICK_DB_URL: `file:${folder}/own.db` };
const truth = join(root, "../shared/truth");

/** Each command with its words, and what it says when it did what it is for. */
const COMMANDS = [
  ["soak", ["20", "untimed"], /50 people, .* 0 lost; 0 failed/s],
  ["kills", ["2"], /2 kills/],
  ["fuzz", ["3000", "7"], /No fault was found/],
  ["claims", [], /claims/],
  ["backup", [copy], /MB, verified/],
  ["restore", [copy], /is now what/],
  ["bench", ["network"], /median/],
  ["demo:write", [join(folder, "demo.json")], /7 builds, 3 runs/],
  ["docs:write", [folder], /checks\.md, pool-ladder\.md/],
  ["migration", [], /nothing to migrate/],
  // A machine of the demo is armed, and powered on by netboot-client.
  ["shots", [folder, "network-boot"], /network-boot\.png/],
  ...(existsSync(truth) ? [["truth", [truth], /equal/]] : []),
];

/** Runs all of them; what failed, as one line each with the end of what was said. */
export function runShort() {
  const failures = COMMANDS.flatMap(([name, words, says]) => {
    const began = Date.now();
    const done = spawnSync("npm", ["run", "-s", name, "--", ...words], {
      encoding: "utf8",
      env: { ...process.env, NEXT_TELEMETRY_DISABLED: "1", ...env },
    });
    const said = `${done.stdout}${done.stderr}`;
    const isGood = done.status === 0 && says.test(said);
    console.log(`npm run ${name}: ${isGood ? "OK" : "FAILED"}, ${Math.round((Date.now() - began) / 1000)} s`);
    return isGood ? [] : [{ file: "scripts/short.mjs", name: `npm run ${name}`, message: said.slice(-2000) }];
  });
  rmSync(folder, { recursive: true, force: true });
  return { passed: COMMANDS.length - failures.length, failures };
}

if (process.argv[1]?.endsWith("short.mjs")) process.exit(runShort().failures.length);
