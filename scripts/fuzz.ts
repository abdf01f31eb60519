// A long fuzz of the readers of tools' outputs: npm run fuzz -- [cases in all, 1000000] [seed].
import { firstFault, SAMPLES } from "../tests/support/fuzz";

const [cases = "1000000", seed = String(Date.now() % 1_000_000)] = process.argv.slice(2);
const each = Math.ceil(Number(cases) / SAMPLES.size);
console.log(`${each} cases of each of ${SAMPLES.size} formats, seed ${seed}.`);
let faults = 0;
for (const tool of SAMPLES.keys()) {
  const found = firstFault(tool, each, Number(seed));
  if (found === null) continue;
  faults += 1;
  console.error(`\n${tool}: ${found.fault}\n${JSON.stringify(found.text)}`);
}
console.log(faults === 0 ? "No fault was found." : `\n${faults} formats have a fault.`);
process.exit(faults === 0 ? 0 : 1);
