import { addressSortKey, boundsOf, edgeOf, parsePrefix, toText } from "./address";
import type { Segment } from "./segment";

export interface SegmentStretch {
  from: string;
  to: string;
  /** Addresses in it, both ends included. */
  count: number;
  use: "edge" | "gateway" | "pool" | "reserved" | "taken" | "free";
  what: string;
}

type Use = Pick<SegmentStretch, "use" | "what">;

/**
 * An IPv4 segment as stretches of one use each, in order, without gaps; an IPv6 or huge one (over /20) has no plan.
 * `taken` says who has an address, by its sort key.
 */
export function segmentPlan(segment: Segment, taken: ReadonlyMap<string, string>): SegmentStretch[] {
  const prefix = parsePrefix(segment.prefix);
  if (!prefix || prefix.family !== "ipv4" || prefix.length < 20) return [];
  const bounds = boundsOf(prefix);
  const [first, last] = [Number(bounds.first), Number(bounds.last)];
  const uses = usesOf(segment, taken, first, last);
  const stretches: SegmentStretch[] = [];
  for (let value = first; value <= last; value += 1) {
    const { use, what } = uses.get(value) ?? FREE;
    const open = stretches.at(-1);
    if (open && open.use === use && open.what === what) {
      open.to = toText(BigInt(value));
      open.count += 1;
    } else stretches.push({ from: toText(BigInt(value)), to: toText(BigInt(value)), count: 1, use, what });
  }
  return stretches;
}

const FREE: Use = { use: "free", what: "free" };

/** An IPv4 address as a number; null for any other text. */
function numberOf(address: string | null): number | null {
  const key = address === null ? null : addressSortKey(address);
  return key?.startsWith(IPV4) ? parseInt(key.slice(IPV4.length), 16) : null;
}

const IPV4 = "00000000000000000000ffff";

/** What each address that is not free is used for; of two uses of one address, the later of these stands. */
function usesOf(
  segment: Segment,
  taken: ReadonlyMap<string, string>,
  first: number,
  last: number,
): Map<number, Use> {
  const uses = new Map<number, Use>();
  const set = (value: number | null, use: Use): void => {
    if (value !== null && value >= first && value <= last) uses.set(value, use);
  };
  for (const range of segment.dhcp) {
    const [from, to] = [numberOf(range.from), numberOf(range.to)];
    if (from === null || to === null) continue;
    for (let value = Math.max(from, first); value <= Math.min(to, last); value += 1)
      set(value, { use: "pool", what: "DHCP range" });
  }
  for (const value of [first, last]) {
    const edge = edgeOf(segment.prefix, toText(BigInt(value)));
    if (edge) set(value, { use: "edge", what: edge });
  }
  for (const r of segment.reservations) set(numberOf(r.address), { use: "reserved", what: r.name });
  for (const [key, what] of taken)
    if (key.startsWith(IPV4)) set(parseInt(key.slice(IPV4.length), 16), { use: "taken", what });
  for (const server of segment.nameServers) set(numberOf(server), { use: "taken", what: "DNS server" });
  set(numberOf(segment.gateway), { use: "gateway", what: "gateway" });
  return uses;
}

/**
 * The lowest address that nothing uses, in the range that the site keeps for servers where it has one; null when there is
 * none, or no plan can be drawn.
 */
export function nextFreeAddress(
  plan: readonly SegmentStretch[],
  servers: Segment["servers"] = null,
): string | null {
  const free = plan.filter((s) => s.use === "free");
  if (!servers) return free[0]?.from ?? null;
  const [from, to] = [numberOf(servers.from), numberOf(servers.to)];
  if (from === null || to === null) return null;
  const first = free.find((s) => numberOf(s.to)! >= from && numberOf(s.from)! <= to);
  return first ? toText(BigInt(Math.max(numberOf(first.from)!, from))) : null;
}
