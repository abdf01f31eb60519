// npm run bench: prints the table of speeds. Nothing here fails a test; machines differ.
import { makeCorpus } from "./corpus.mjs";
import { build, installChromium, installPackages, run } from "./setup.mjs";

installPackages();
installChromium();
makeCorpus();
build();
// All of them, or those that are named: npm run bench -- network
const asked = process.argv.slice(2);
const PARTS = ["core", "network", "image", "intake", "server", "page", "sheet", "netboot", "attack"];
for (const part of PARTS.filter((p) => asked.length === 0 || asked.includes(p)))
  run("npx", ["tsx", `scripts/bench-${part}.ts`]);
