// npm start: for real use. Its own data folder (.derrick/, or DERRICK_DB_URL), on loopback.
import {
  build,
  installPackages,
  portFromEnvironment,
  portIsFree,
  startServer,
  tieTo,
  untilReady,
} from "./setup.mjs";

const port = portFromEnvironment();
installPackages();
build();
await portIsFree(port).catch((error) => {
  console.error(error.message);
  process.exit(1);
});
const server = startServer(port, {}, ["ignore", "ignore", "inherit"]);
tieTo(server);
await untilReady(port, server).catch((error) => {
  console.error(error.message);
  server.kill();
  process.exit(1);
});
console.log(
  `\nDerrick runs at http://127.0.0.1:${port}. Its data is in ${process.env.DERRICK_DB_URL ?? ".derrick/derrick.db"}. Stop it with Ctrl-C.\n`,
);
