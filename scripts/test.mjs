// npm test: installs what is missing, then types, lint, layers, unit tests, build, browser tests. Ends with one line
// that counts all tests.
import { spawnSync } from "node:child_process";
import { existsSync, readFileSync, rmSync } from "node:fs";
import { makeCorpus } from "./corpus.mjs";
import { build, installChromium, installPackages, installTools, run } from "./setup.mjs";
import { makeTinySystem } from "./tiny-system.mjs";

installPackages();
installChromium();
installTools();
makeCorpus();
makeTinySystem();
run("npm", ["run", "-s", "types"]);
run("npm", ["run", "-s", "lint"]);
run("npm", ["run", "-s", "layers"]);
build({ always: process.env.CI === "true" });

const counts = { passed: 0, failed: 0 };
const readUnit = (r) => [
  r.numPassedTests,
  r.numFailedTests + (r.success ? 0 : r.numFailedTests === 0 ? 1 : 0),
];
const unit = (name, ...files) => ({
  args: [
    "vitest",
    "run",
    "--reporter=default",
    "--reporter=json",
    `--outputFile=.derrick/${name}.json`,
    ...files,
  ],
  file: `.derrick/${name}.json`,
  read: readUnit,
});
const runners = [
  unit("unit"),
  // Alone: an emulated PC takes all of the machine.
  { ...unit("emulated", "tests/integration/emulated-pc.test.ts"), env: { DERRICK_EMULATED: "1" } },
  {
    args: ["playwright", "test"],
    file: ".derrick/e2e.json",
    read: (r) => [r.stats.expected, r.stats.unexpected + r.stats.flaky + r.errors.length],
  },
];
for (const { args, file, read, env = {} } of runners) {
  rmSync(file, { force: true });
  const done = spawnSync("npx", args, {
    stdio: "inherit",
    env: { ...process.env, NEXT_TELEMETRY_DISABLED: "1", ...env },
  });
  const [passed, failed] = existsSync(file) ? read(JSON.parse(readFileSync(file, "utf8"))) : [0, 1];
  counts.passed += passed;
  counts.failed += failed + (done.status !== 0 && failed === 0 ? 1 : 0);
}
console.log(`\n${counts.passed} passed, ${counts.failed} failed`);
process.exit(counts.failed === 0 && counts.passed > 0 ? 0 : 1);
