import { createServer, type IncomingMessage, type Server, type ServerResponse } from "node:http";
import { deskOf } from "../desk";
import { limitConnections } from "./connections";
import { readEnvironment } from "../environment";
import { sendText } from "./send";
import { serveBoot } from "./serve";

/** So many requests at once from one address, and so many a second after that: an installer asks for hundreds of files. */
const [BURST, A_SECOND, MOST_ADDRESSES] = [400, 50, 5000];

/** Counts what each address asks; true while it may ask. */
export function limiter(clock: () => number): (address: string) => boolean {
  const left = new Map<string, { tokens: number; at: number }>();
  return (address) => {
    const now = clock();
    const entry = left.get(address) ?? { tokens: BURST, at: now };
    const tokens = Math.min(BURST, entry.tokens + ((now - entry.at) / 1000) * A_SECOND);
    // The one that asked longest ago is forgotten, and nobody else: whoever is held up stays so.
    left.delete(address);
    if (left.size >= MOST_ADDRESSES) left.delete(left.keys().next().value!);
    left.set(address, { tokens: Math.max(0, tokens - 1), at: now });
    return tokens >= 1;
  };
}

/** So many connections may wait to be taken; a rack comes back all at once, and who finds no place tries again a second later. */
const AT_THE_DOOR = 4096;

const [HEAD_MILLISECONDS, REQUEST_MILLISECONDS] = [10_000, 30_000];

const shared = globalThis as { derrickBoot?: Server };

/**
 * Starts the boot service where DERRICK_BOOT_URL says; without it there is none. It is a listener of its own: nothing of the
 * application can be reached over its address, whatever is asked for.
 */
export async function startBoot(): Promise<void> {
  const { DERRICK_BOOT_URL: base } = readEnvironment();
  if (!base || shared.derrickBoot) return;
  const { hostname, port } = new URL(base);
  const may = limiter(() => Date.now());
  const answer = async (request: IncomingMessage, response: ServerResponse): Promise<void> => {
    if (!may(request.socket.remoteAddress ?? ""))
      return void (await sendText(request, response, "Too many requests; ask again in a moment.\n", 429));
    await serveBoot(await deskOf("boot service"), base, request, response);
  };
  const server = createServer({ connectionsCheckingInterval: 1000 }, (request, response) => {
    answer(request, response).catch(() => {
      if (response.headersSent) response.destroy();
      else
        void sendText(request, response, "The boot service cannot answer now.\n", 503).catch(() => undefined);
    });
  });
  // What is asked comes whole in this time, its head sooner; a slow installer may read the answer for an hour.
  server.headersTimeout = HEAD_MILLISECONDS;
  server.requestTimeout = REQUEST_MILLISECONDS;
  server.keepAliveTimeout = HEAD_MILLISECONDS;
  limitConnections(server);
  await new Promise<void>((resolve, reject) => {
    server.once("error", (error) =>
      reject(new Error(`The boot service cannot listen at ${base} (DERRICK_BOOT_URL): ${error.message}`)),
    );
    const host = hostname.replace(/^\[|\]$/g, "");
    server.listen({ host, port: Number(port || 80), backlog: AT_THE_DOOR }, resolve);
  });
  shared.derrickBoot = server;
}

export async function endBoot(): Promise<void> {
  const server = shared.derrickBoot;
  delete shared.derrickBoot;
  if (!server) return;
  const closed = new Promise((resolve) => server.close(resolve));
  server.closeAllConnections();
  await closed;
}
