// tsx scripts/demo-image.ts FOLDER: makes the image from which machines of the demo start over the network: of the demo's name
// and size, with made-up bytes for a kernel and an initial file system inside. Ends with 3 where xorrisofs is not there.
import { spawnSync } from "node:child_process";
import { mkdirSync } from "node:fs";
import { imageFolder } from "../tests/support/boot-image";

const [folder = ".derrick/demo/images"] = process.argv.slice(2);
if (spawnSync("xorrisofs", ["--version"]).error) process.exit(3);
mkdirSync(folder, { recursive: true });
imageFolder(undefined, folder);
