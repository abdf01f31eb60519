// npm run demo: installs what is missing, builds, loads the demo data into a fresh database of its own, and starts.
import { mkdirSync, rmSync } from "node:fs";
import {
  build,
  demoBoot,
  installPackages,
  loadDemo,
  portFromEnvironment,
  portIsFree,
  startServer,
  tieTo,
  untilReady,
} from "./setup.mjs";

const port = portFromEnvironment();
const folder = ".derrick/demo";

installPackages();
build();
await portIsFree(port).catch((error) => {
  console.error(error.message);
  process.exit(1);
});
rmSync(folder, { recursive: true, force: true });
mkdirSync(folder, { recursive: true });
const boot = demoBoot(port, folder);
const server = startServer(port, { DERRICK_DB_URL: `file:${folder}/demo.db`, ...boot }, [
  "ignore",
  "ignore",
  "inherit",
]);
tieTo(server);
await untilReady(port, server);
const answer = await loadDemo(port);
if (!answer.ok) {
  console.error("The demo data could not be loaded:", JSON.stringify(answer.problems));
  server.kill();
} else {
  console.log(
    `\nThe demo of Derrick runs at http://127.0.0.1:${port}\nIt has ${answer.value.machines} machines and ${answer.value.builds} build sheets of Marrowby Water, an invented water utility. Stop it with Ctrl-C.\n`,
  );
  console.log(
    boot.DERRICK_BOOT_URL
      ? `Its boot service runs at ${boot.DERRICK_BOOT_URL}. To try it, arm wrk-tm1 at /builds/b-wrk-tm1/arm, then start a simulated machine in another window:\n  npm run netboot-client -- --base ${boot.DERRICK_BOOT_URL} --demo wrk-tm1\n`
      : "Network boot is off in this demo, because xorrisofs (Debian package xorriso) is not installed.\n",
  );
}
