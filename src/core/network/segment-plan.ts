import { boundsOf, edgeOf, inRange, parsePrefix, toText } from "./address";
import type { Segment } from "./segment";

export interface SegmentStretch {
  from: string;
  to: string;
  /** Addresses in it, both ends included. */
  count: number;
  use: "edge" | "gateway" | "pool" | "reserved" | "taken" | "free";
  what: string;
}

/** An IPv4 segment as stretches of one use each, in order, without gaps; an IPv6 or huge one (over /20) has no plan. */
export function segmentPlan(segment: Segment, taken: ReadonlyMap<string, string>): SegmentStretch[] {
  const prefix = parsePrefix(segment.prefix);
  if (!prefix || prefix.family !== "ipv4" || prefix.length < 20) return [];
  const { first, last } = boundsOf(prefix);
  const stretches: SegmentStretch[] = [];
  for (let value = first; value <= last; value += 1n) {
    const { use, what } = usedFor(toText(value), segment, taken);
    const open = stretches.at(-1);
    if (open && open.use === use && open.what === what) {
      open.to = toText(value);
      open.count += 1;
    } else stretches.push({ from: toText(value), to: toText(value), count: 1, use, what });
  }
  return stretches;
}

function usedFor(
  address: string,
  segment: Segment,
  taken: ReadonlyMap<string, string>,
): Pick<SegmentStretch, "use" | "what"> {
  if (address === segment.gateway) return { use: "gateway", what: "gateway" };
  if (segment.nameServers.includes(address)) return { use: "taken", what: "name server" };
  const owner = taken.get(address);
  if (owner !== undefined) return { use: "taken", what: owner };
  const reservation = segment.reservations.find((r) => r.address === address);
  if (reservation) return { use: "reserved", what: reservation.name };
  const edge = edgeOf(segment.prefix, address);
  if (edge) return { use: "edge", what: edge };
  if (segment.dhcp.some((range) => inRange(address, range))) return { use: "pool", what: "DHCP range" };
  return { use: "free", what: "free" };
}

/** The lowest address of a plan that nothing uses; null when there is none, or no plan can be drawn. */
export const nextFreeAddress = (plan: readonly SegmentStretch[]): string | null =>
  plan.find((s) => s.use === "free")?.from ?? null;
