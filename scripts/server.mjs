// The server: Next behind Derrick's door (src/server/door). Run by npm start, the demo, the tests, and npm run dev.
// A server of its own and not a proxy.ts: that would cut uploads, and would stand behind the door that it is to be.
import { createServer } from "node:http";
import { parseArgs } from "node:util";
import next from "next";

const { values } = parseArgs({
  options: { port: { type: "string", default: "4360" }, dev: { type: "boolean", default: false } },
});
const { dev } = values;
const port = Number(values.port);
const hostname = "127.0.0.1";

const BODY_MILLISECONDS = 150_000;
/** How long an answer may take to end when the server is told to stop. */
const GRACE_MILLISECONDS = 5000;

const shared = (globalThis.derrickServer = {});
const app = next({ dev, hostname, port });
await app.prepare();
// A built Next starts src/instrumentation.ts with the first request only; the door must stand before that.
const instrumentation = await import("next/dist/server/lib/router-utils/instrumentation-globals.external.js");
await instrumentation.default.ensureInstrumentationRegistered(process.cwd(), ".next");
const { door } = shared;
const handle = app.getRequestHandler();
const server = createServer((request, response) => {
  if (!door.admit(request, response, dev)) return;
  // Readers of bodies have limits of their own, told in words; this ends what never reaches one. An archive may take hours.
  if (!request.url.startsWith("/api/v1/export")) {
    const late = setTimeout(() => !request.complete && request.destroy(), BODY_MILLISECONDS);
    response.on("close", () => clearTimeout(late));
  }
  void handle(request, response);
});
// Node's own limit for a whole request would cut long archives. A head has twenty seconds.
server.requestTimeout = 0;
server.headersTimeout = 20_000;
server.on("upgrade", (_request, socket) => {
  if (!dev) socket.destroy();
});
server.listen(port, hostname);
server.on("error", (error) => {
  console.error(`\nDerrick did not start.\n${error.message}\n`);
  process.exit(1);
});

let ending = false;
async function end() {
  if (ending) return;
  ending = true;
  const closed = new Promise((resolve) => server.close(resolve));
  door.hangUp();
  server.closeIdleConnections();
  const late = setTimeout(() => server.closeAllConnections(), GRACE_MILLISECONDS);
  await closed;
  clearTimeout(late);
  await door.end();
  process.exit(0);
}
for (const signal of ["SIGINT", "SIGTERM"]) process.on(signal, end);
