// npm run bench: prints the table of speeds. Nothing here fails a test; machines differ.
import { makeCorpus } from "./corpus.mjs";
import { build, installChromium, installPackages, run } from "./setup.mjs";

installPackages();
installChromium();
makeCorpus();
build();
for (const part of ["core", "network", "image", "intake", "server", "page", "sheet", "netboot"])
  run("npx", ["tsx", `scripts/bench-${part}.ts`]);
