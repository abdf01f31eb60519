// npm run truth [-- FOLDER [--corpus FOLDER]]: compares what Derrick computes with what real programs and firmware did,
// for every file of a known shape in FOLDER (default: the public cases beside the project), and fails if anything differs.
import { existsSync, statSync } from "node:fs";
import { join, resolve } from "node:path";
import { parseArgs } from "node:util";
import { compareFolder, READERS, type Outcome } from "../tests/truth";

const MOST_SHOWN = 5;
const { values, positionals } = parseArgs({
  allowPositionals: true,
  options: { corpus: { type: "string" } },
});
const folder = resolve(positionals[0] ?? "../shared/truth");
if (!existsSync(folder) || !statSync(folder).isDirectory()) {
  console.error(`${folder} is not a folder. Name the folder of the measured cases: npm run truth -- FOLDER`);
  process.exit(2);
}

/** The boot images: where the person says, beside the cases, or as npm run corpus makes the public ones. */
const corpus = resolve(
  values.corpus ??
    [join(folder, "corpus"), join(folder, "images")].find((f) => existsSync(f)) ??
    ".derrick/corpus",
);

const cut = (value: unknown): string => (JSON.stringify(value) ?? "nothing").slice(0, 300);
const sums = (equal: number, differ: number): string => `${equal} equal, ${differ} differ`;

function print({ path, equal, differences, seconds }: Outcome): void {
  console.log(`${path}: ${sums(equal, differences.length)} (${seconds.toFixed(2)} s)`);
  for (const { what, measured, derrick } of differences.slice(0, MOST_SHOWN))
    console.log(`  ${what}\n    measured ${cut(measured)}\n    Derrick  ${cut(derrick)}`);
  if (differences.length > MOST_SHOWN) console.log(`  … and ${differences.length - MOST_SHOWN} more`);
}

let [equal, differ] = [0, 0];
for (const outcome of compareFolder(folder, READERS, { corpus })) {
  print(outcome);
  equal += outcome.equal;
  differ += outcome.differences.length;
}
console.log(`\n${sums(equal, differ)}`);
if (equal + differ === 0) console.error("No file in this folder is a known set of cases.");
process.exitCode = differ > 0 || equal === 0 ? 1 : 0;
