import type { Facts } from "../machine";
import { differs, notSeen, seen, type Seen } from "./seen";

/** What is only for the machine itself; nobody else reaches it. */
const isOwn = (address: string): boolean => address === "::1" || address.startsWith("127.");

/**
 * Whether the machine answers on the planned ports and on no others, as far as its own table of sockets tells; what it
 * offers to itself alone does not count.
 */
export function lookAtListening({ ports }: { ports: readonly string[] }, facts: Facts): Seen {
  const all = facts.system?.listening;
  if (!all) return notSeen();
  const open = [...new Set(all.filter((l) => !isOwn(l.address)).map((l) => `${l.port}/${l.protocol}`))];
  const more = open.filter((p) => !ports.includes(p));
  const silent = ports.filter((p) => !open.includes(p));
  const words = [
    ...(silent.length > 0 ? [`not listening: ${silent.join(", ")}`] : []),
    ...(more.length > 0 ? [`also listening: ${more.join(", ")}`] : []),
  ];
  return words.length > 0 ? differs(words.join("; ")) : seen(open.join(", ") || "nothing", true);
}
