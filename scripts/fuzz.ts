// A long fuzz of the readers of tools' outputs and of images: npm run fuzz -- [cases in all, 1000000] [seed].
import { firstFault, SAMPLES } from "../tests/support/fuzz";
import { firstImageFault, IMAGES } from "../tests/support/fuzz-images";

const [cases = "1000000", seed = String(Date.now() % 1_000_000)] = process.argv.slice(2);
const each = Math.ceil(Number(cases) / (SAMPLES.size + IMAGES.length));
console.log(`${each} cases of each of ${SAMPLES.size} tools and ${IMAGES.length} images, seed ${seed}.`);
let faults = 0;
const tell = (what: string, fault: string | null): void => {
  if (fault === null) return;
  faults += 1;
  console.error(`\n${what}: ${fault}`);
};
for (const tool of SAMPLES.keys()) {
  const found = firstFault(tool, each, Number(seed));
  tell(tool, found && `${found.fault}\n${JSON.stringify(found.text)}`);
}
for (const name of IMAGES) tell(name, firstImageFault(name, each, Number(seed)));
console.log(faults === 0 ? "No fault was found." : `\n${faults} of them have a fault.`);
process.exit(faults === 0 ? 0 : 1);
