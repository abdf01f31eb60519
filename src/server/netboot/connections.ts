import { readFileSync } from "node:fs";
import type { Server } from "node:http";
import type { Socket } from "node:net";

/** So many connections at most, from however many addresses, and so many from one of them. */
const [MOST, MOST_OF_ONE] = [4096, 64];
/** Descriptors that are left to the application, its database and its files; a file that is sent takes one beside its connection. */
const KEPT_BACK = 256;

/** How many files this process may have open; what cannot be read is taken as the usual limit. */
function descriptors(): number {
  try {
    const [, soft] =
      /^Max open files\s+(\d+|unlimited)/m.exec(readFileSync("/proc/self/limits", "utf8")) ?? [];
    return soft === "unlimited" ? Infinity : Number(soft ?? 1024);
  } catch {
    return 1024;
  }
}

const isLoopback = (address: string): boolean => /^(?:::1|(?:::ffff:)?127\.)/.test(address);

/** How many connections the boot service takes, so that the application keeps room. */
export const mostConnections = (limit = descriptors()): number =>
  Math.max(16, Math.min(MOST, Math.floor((limit - KEPT_BACK) / 3)));

/**
 * Holds the connections of a server within a number in all, and within one for each address. Who comes beyond it takes the place
 * of the connection that has asked nothing for longest; where all have something under way, it is refused. Programs of this
 * machine share one address, such as a proxy, so that only the number in all holds for them.
 */
export function limitConnections(server: Server, most = mostConnections(), mostOfOne = MOST_OF_ONE): void {
  /** Those that have nothing under way, the oldest first: of all, and of each address. */
  const silent = new Set<Socket>();
  const byAddress = new Map<string, { all: number; silent: Set<Socket> }>();
  const of = new WeakMap<Socket, string>();
  let inAll = 0;
  const makeRoom = (among: Set<Socket>): boolean => {
    const [oldest] = among;
    if (!oldest) return false;
    leave(oldest);
    oldest.destroy();
    return true;
  };
  const leave = (socket: Socket): void => {
    const address = of.get(socket);
    if (address === undefined) return;
    of.delete(socket);
    silent.delete(socket);
    inAll -= 1;
    const own = byAddress.get(address)!;
    own.silent.delete(socket);
    own.all -= 1;
    if (own.all === 0) byAddress.delete(address);
  };
  server.on("connection", (socket: Socket) => {
    const address = socket.remoteAddress ?? "";
    const own = byAddress.get(address);
    const isFull = own !== undefined && own.all >= mostOfOne && !isLoopback(address);
    if ((isFull && !makeRoom(own.silent)) || (inAll >= most && !makeRoom(silent)))
      return void socket.destroy();
    // Another one of this address may have been the only one that was left.
    const place = byAddress.get(address) ?? { all: 0, silent: new Set<Socket>() };
    byAddress.set(address, place);
    of.set(socket, address);
    inAll += 1;
    place.all += 1;
    place.silent.add(socket);
    silent.add(socket);
    socket.on("close", () => leave(socket));
  });
  server.on("request", ({ socket }, response) => {
    const own = byAddress.get(of.get(socket) ?? "");
    if (!own) return;
    silent.delete(socket);
    own.silent.delete(socket);
    response.on("close", () => {
      if (!of.has(socket)) return;
      silent.add(socket);
      own.silent.add(socket);
    });
  });
}
