// npm test: installs what is missing, then types, lint, layers, build, unit tests, browser tests. Ends with what failed
// and one line that counts all tests. A file with a failure is run once more, alone: a machine with much to do is told
// apart from a fault, and what passed only then is named.
import { spawnSync } from "node:child_process";
import { existsSync, readFileSync, rmSync } from "node:fs";
import { relative } from "node:path";
import { makeCorpus } from "./corpus.mjs";
import { build, installChromium, installPackages, installTools, run } from "./setup.mjs";
import { fetchInstaller } from "./installer-root.mjs";
import { makeRealInstaller } from "./real-installer.mjs";
import { runShort } from "./short.mjs";
import { makeTinySystem } from "./tiny-system.mjs";

installPackages();
installChromium();
installTools();
makeCorpus();
makeTinySystem();
fetchInstaller();
/** Why the real installer is not tried: the archive that this machine reaches may have no whole one just now. */
const noInstaller = await makeRealInstaller().then(
  () => "",
  (error) => String(error),
);
run("npm", ["run", "-s", "types"]);
run("npm", ["run", "-s", "lint"]);
run("npm", ["run", "-s", "layers"]);
build({ always: process.env.CI === "true" });

/** What failed in the report of a run: file, name and message of each. `passed` counts the others. */
const readUnit = (report) => {
  const failures = report.testResults.flatMap((file) => {
    const bad = file.assertionResults.filter((test) => test.status === "failed");
    if (bad.length === 0)
      return file.status === "failed" ? [{ file: file.name, name: "", message: file.message }] : [];
    return bad.map((test) => ({ file: file.name, name: test.fullName, message: test.failureMessages[0] }));
  });
  return { passed: report.numPassedTests, failures };
};
const readBrowser = (report) => {
  const specs = (suite) => [...(suite.specs ?? []), ...(suite.suites ?? []).flatMap(specs)];
  const failures = report.suites
    .flatMap(specs)
    .filter((spec) => !spec.ok)
    .map((spec) => ({
      file: `tests/e2e/${spec.file}`,
      name: spec.title,
      message: spec.tests.flatMap((test) => test.results.flatMap((one) => one.errors))[0]?.message,
    }));
  for (const error of report.errors) failures.push({ file: "", name: "playwright", message: error.message });
  return { passed: report.stats.expected, failures };
};
const unit = (name, files = [], env = {}) => ({
  args: ["vitest", "run", "--reporter=default", "--reporter=json", `--outputFile=.derrick/${name}.json`],
  ...{ files, env, report: `.derrick/${name}.json`, read: readUnit },
});
const runners = [
  unit("unit"),
  // Alone: an emulated PC takes all of the machine.
  unit("emulated", ["tests/integration/emulated-pc.test.ts"], { DERRICK_EMULATED: "1" }),
  // The same, with a real installer and one kind of drive; npm run real has all of them.
  ...(noInstaller
    ? []
    : [unit("real", ["tests/integration/real-installer.test.ts"], { DERRICK_REAL: "short" })]),
  { args: ["playwright", "test"], files: [], env: {}, report: ".derrick/e2e.json", read: readBrowser },
];

/** A second run keeps its traces and pictures beside those of the first. */
const runOnce = ({ args, env, report, read }, files, again = "") => {
  rmSync(report, { force: true });
  const { status } = spawnSync("npx", [...args, ...files], {
    stdio: "inherit",
    env: { ...process.env, NEXT_TELEMETRY_DISABLED: "1", ...env, DERRICK_AGAIN: again },
  });
  const { passed, failures } = existsSync(report)
    ? read(JSON.parse(readFileSync(report, "utf8")))
    : { passed: 0, failures: [] };
  // An error outside of every test fails the run as well.
  if (status !== 0 && failures.length === 0)
    failures.push({ file: "", name: args.join(" "), message: `ended with ${status}` });
  return { passed, failures };
};

const MOST_FILES_AGAIN = 5;
const short = runShort();
let passed = short.passed;
const failed = [...short.failures];
const onlyAlone = [];
for (const runner of runners) {
  const first = runOnce(runner, runner.files);
  const files = [...new Set(first.failures.map((one) => one.file))];
  const again = files.length > 0 && files.length <= MOST_FILES_AGAIN && !files.includes("");
  const left = again ? runOnce(runner, files, "1").failures : first.failures;
  passed += first.passed;
  failed.push(...left);
  if (left.length > 0 || !again) continue;
  passed += first.failures.length;
  onlyAlone.push(...first.failures);
}
const tell = (what, { file, name, message = "" }) => {
  console.log(`\n${what}: ${relative(process.cwd(), file)} › ${name}`);
  console.log(message.split("\n").slice(0, 15).join("\n"));
};
for (const one of onlyAlone.slice(0, 10)) tell("PASSED ONLY ALONE", one);
for (const one of failed.slice(0, 10)) tell("FAILED", one);
if (noInstaller)
  console.log(`\nNOT RUN: tests/integration/real-installer.test.ts: ${noInstaller.slice(0, 1500)}`);
if (onlyAlone.length > 0) console.log(`\n${onlyAlone.length} of them passed only when repeated on their own`);
console.log(`\n${passed} passed, ${failed.length} failed`);
process.exit(failed.length === 0 && passed > 0 ? 0 : 1);
