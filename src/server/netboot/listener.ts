import { createServer, type IncomingMessage, type Server, type ServerResponse } from "node:http";
import type { Server as NetServer, Socket } from "node:net";
import { createServer as createTlsServer, TLSSocket } from "node:tls";
import { deskOf } from "../desk";
import { bootPair, bootTrust } from "./certificate";
import { limitConnections, mostConnections } from "./connections";
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

const shared = globalThis as { derrickBoot?: { server: Server; tls?: NetServer; open?: Set<Socket> } };

/**
 * Starts the boot service where DERRICK_BOOT_URL says; without it there is none. It is a listener of its own: nothing of the
 * application can be reached over its address, whatever is asked for.
 */
export async function startBoot(): Promise<void> {
  const { DERRICK_BOOT_URL: base, DERRICK_BOOT_TLS_URL: tlsBase } = readEnvironment();
  if (!base || shared.derrickBoot) return;
  const pair = tlsBase ? await bootPair(tlsBase) : null;
  const pin = bootTrust()?.pin ?? "";
  const may = limiter(() => Date.now());
  const answer = async (request: IncomingMessage, response: ServerResponse): Promise<void> => {
    if (!may(request.socket.remoteAddress ?? ""))
      return void (await sendText(request, response, "Too many requests; ask again in a moment.\n", 429));
    const [at, believes] = tlsBase && request.socket instanceof TLSSocket ? [tlsBase, pin] : [base, ""];
    await serveBoot(await deskOf("boot service"), at, request, response, believes);
  };
  const server = createServer({ connectionsCheckingInterval: 1000 }, (request, response) => {
    answer(request, response).catch(() => {
      if (response.headersSent) response.destroy();
      else
        void sendText(request, response, "The boot service cannot respond now.\n", 503).catch(
          () => undefined,
        );
    });
  });
  // What is asked comes whole in this time, its head sooner; a slow installer may read the answer for an hour.
  server.headersTimeout = HEAD_MILLISECONDS;
  server.requestTimeout = REQUEST_MILLISECONDS;
  server.keepAliveTimeout = HEAD_MILLISECONDS;
  limitConnections(server);
  await listening(server, base, "DERRICK_BOOT_URL", 80);
  shared.derrickBoot = { server };
  if (!tlsBase || !pair) return;
  // What has shaken hands is served by the same server, within the same limits.
  const tls = createTlsServer({ key: pair.key, cert: pair.certificate, handshakeTimeout: HEAD_MILLISECONDS });
  tls.maxConnections = mostConnections();
  tls.on("secureConnection", (socket) => server.emit("connection", socket));
  // A handshake that took too long is told of, and its connection stays open unless it is closed here.
  tls.on("tlsClientError", (_, socket) => socket.destroy());
  const open = new Set<Socket>();
  tls.on("connection", (socket: Socket) => {
    open.add(socket);
    socket.on("close", () => open.delete(socket));
  });
  await listening(tls, tlsBase, "DERRICK_BOOT_TLS_URL", 443);
  shared.derrickBoot = { server, tls, open };
}

/** Waits until a server listens at its address. */
async function listening(server: NetServer, url: string, variable: string, usual: number): Promise<void> {
  const { hostname, port } = new URL(url);
  await new Promise<void>((resolve, reject) => {
    server.once("error", (error) =>
      reject(new Error(`The boot service cannot listen at ${url} (${variable}): ${error.message}`)),
    );
    const host = hostname.replace(/^\[|\]$/g, "");
    server.listen({ host, port: Number(port || usual), backlog: AT_THE_DOOR }, resolve);
  });
}

export async function endBoot(): Promise<void> {
  const { server, tls, open } = shared.derrickBoot ?? {};
  delete shared.derrickBoot;
  const closed = [server, tls].map((one) => one && new Promise((resolve) => one.close(resolve)));
  server?.closeAllConnections();
  // Those that have not shaken hands are known to nobody else.
  for (const socket of open ?? []) socket.destroy();
  await Promise.all(closed);
}
