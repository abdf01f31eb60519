// npm run bench: prints the table of speeds. Nothing here fails a test; machines differ.
import { spawnSync } from "node:child_process";
import { build, installPackages } from "./setup.mjs";

installPackages();
build();
const done = spawnSync("npx", ["tsx", "scripts/bench-core.ts"], { stdio: "inherit" });
if (done.status !== 0) process.exit(done.status ?? 1);
const served = spawnSync("npx", ["tsx", "scripts/bench-server.ts"], { stdio: "inherit" });
process.exit(served.status ?? 1);
