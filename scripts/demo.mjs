// npm run demo: installs what is missing, builds, loads the demo data into a fresh database of its own, and starts.
import { mkdirSync, rmSync } from "node:fs";
import {
  build,
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
const server = startServer(port, { DERRICK_DB_URL: `file:${folder}/demo.db` }, [
  "ignore",
  "ignore",
  "inherit",
]);
tieTo(server);
await untilReady(port, server);
const answer = await loadDemo(port);
if (!answer.ok) {
  console.error("The demo data was not loaded:", JSON.stringify(answer.problems));
  server.kill();
} else
  console.log(
    `\nThe demo of Derrick runs at http://127.0.0.1:${port}\n${answer.value.machines} machines and ${answer.value.builds} builds of Marrowby Water, a made-up water utility. Ctrl-C ends it.\n`,
  );
