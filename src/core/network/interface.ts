import { z } from "zod";
import { mtuSchema } from "./device";

/** The ways in which a bond spreads its frames, under the names that Linux and most formats give them. */
export const BOND_MODES = ["active-backup", "802.3ad", "balance-xor", "balance-rr", "broadcast"] as const;
export type BondMode = (typeof BOND_MODES)[number];

/** What a bond does, in words, and what it asks of the switch. */
export const BOND_WORDS: Record<BondMode, { does: string; asks: "nothing" | "lacp" | "static" }> = {
  "active-backup": {
    does: "one port is active, the other is a standby; needs no switch configuration, and may use two switches",
    asks: "nothing",
  },
  "802.3ad": {
    does: "all ports are active, each connection uses one port; needs an LACP LAG of the same ports at the switch",
    asks: "lacp",
  },
  "balance-xor": {
    does: "all ports are active, each connection uses one port; needs a static LAG at the switch",
    asks: "static",
  },
  "balance-rr": {
    does: "frames alternate between ports and can arrive out of order; needs a static LAG at the switch",
    asks: "static",
  },
  broadcast: { does: "every frame is sent on every port: for special wiring only", asks: "static" },
};

export const HASHES = ["layer2", "layer2+3", "layer3+4"] as const;

export const PURPOSES = [
  "management",
  "storage",
  "guests",
  "moves of guests",
  "backup",
  "uplink",
  "lab",
] as const;

/** A group of guests' ports on a virtual switch: what hangs on it, and in which network. */
export const portGroupSchema = z.object({
  name: z.string().trim().max(64),
  purpose: z.enum(PURPOSES).default("guests"),
  segment: z.string().nullable().default(null),
});
export type PortGroup = z.infer<typeof portGroupSchema>;

/** What interfaces of every kind have: a name, what they stand on (MACs of ports or names of others), a network and an address. */
const common = {
  name: z.string().trim().max(64),
  on: z.array(z.string().max(64)).max(32).default([]),
  segment: z.string().nullable().default(null),
  /** A fixed address beside the management address; empty for none. */
  address: z.string().max(64).default(""),
  mtu: mtuSchema.nullable().default(null),
};

/** One interface of the machine that is to be built beside its plain ports. */
export const interfaceSchema = z.discriminatedUnion("kind", [
  z.object({ kind: z.literal("port"), ...common }),
  z.object({
    kind: z.literal("bond"),
    ...common,
    mode: z.enum(BOND_MODES).default("active-backup"),
    hash: z.enum(HASHES).default("layer2"),
  }),
  z.object({
    kind: z.literal("vlan"),
    ...common,
    vlan: z.number().int().min(1).max(4094).nullable().default(null),
  }),
  z.object({
    kind: z.literal("bridge"),
    ...common,
    /** Whether guests may be put into VLANs by the bridge. */
    vlanAware: z.boolean().default(false),
  }),
  z.object({
    kind: z.literal("virtual switch"),
    ...common,
    groups: z.array(portGroupSchema).max(64).default([]),
  }),
]);
export type Interface = z.infer<typeof interfaceSchema>;
export type InterfaceKind = Interface["kind"];

export const INTERFACE_KINDS = [
  "port",
  "bond",
  "vlan",
  "bridge",
  "virtual switch",
] as const satisfies readonly InterfaceKind[];

/** A name that Linux takes for an interface: at most 15 bytes, no blank, slash or colon, and not one that it keeps for itself. */
export const isInterfaceName = (name: string): boolean =>
  /^[A-Za-z0-9][A-Za-z0-9._-]{0,14}$/.test(name) && !["all", "default", "lo"].includes(name);

/** An interface of this kind with the first name that none of some others has. */
export function newInterface(
  kind: InterfaceKind,
  others: readonly Interface[],
  parent: string | null,
): Interface {
  const taken = new Set(others.map((i) => i.name));
  const numbered = (stem: string): string => {
    for (let n = 0; ; n += 1) if (!taken.has(`${stem}${n}`)) return `${stem}${n}`;
  };
  const stem = { port: "lan", bond: "bond", vlan: "vlan", bridge: "br", "virtual switch": "switch" }[kind];
  return interfaceSchema.parse({ kind, name: numbered(stem), on: parent === null ? [] : [parent] });
}

/**
 * The interfaces and the carrier of the management address with another interface in one's place. What stands on it goes along
 * with its new name, but for a name that another one has: what stands on that stays there.
 */
export function withInterface(
  { interfaces, carrier }: { interfaces: readonly Interface[]; carrier: string | null },
  at: number,
  next: Interface,
): { interfaces: Interface[]; carrier: string | null } {
  const from = interfaces[at]?.name ?? "";
  const put = interfaces.map((i, j) => (j === at ? next : i));
  const isOthers = (name: string): boolean => interfaces.some((i, j) => j !== at && i.name === name);
  if (from === next.name || isOthers(from) || isOthers(next.name)) return { interfaces: put, carrier };
  return {
    interfaces: put.map((i) => ({ ...i, on: i.on.map((o) => (o === from ? next.name : o)) })),
    carrier: carrier === from ? next.name : carrier,
  };
}

/** What hangs together below an interface: itself first, then all that it stands on, each once; a circle is not followed. */
export function stackBelow(interfaces: readonly Interface[], name: string): Interface[] {
  const below: Interface[] = [];
  const go = (at: string): void => {
    const one = interfaces.find((i) => i.name === at);
    if (!one || below.includes(one)) return;
    below.push(one);
    one.on.forEach(go);
  };
  go(name);
  return below;
}

const MAC = /^([\da-f]{2}:){5}[\da-f]{2}$/i;
export const isMac = (text: string): boolean => MAC.test(text);

/** The MACs of the ports on which an interface stands in the end. */
export const portsBelow = (interfaces: readonly Interface[], name: string): string[] => [
  ...new Set(stackBelow(interfaces, name).flatMap((i) => i.on.filter(isMac))),
];

/** The names of those that stand, in the end, on themselves. */
export function circles(interfaces: readonly Interface[]): string[] {
  const reaches = (from: string, wanted: string, seen: Set<string>): boolean =>
    (interfaces.find((i) => i.name === from)?.on ?? []).some((next) => {
      if (next === wanted) return true;
      if (seen.has(next)) return false;
      seen.add(next);
      return reaches(next, wanted, seen);
    });
  return interfaces.filter((i) => reaches(i.name, i.name, new Set())).map((i) => i.name);
}

/** In which order they can be made: what one stands on comes before it. Those of a circle come last. */
export function buildOrder(interfaces: readonly Interface[]): Interface[] {
  const done: Interface[] = [];
  const ready = (i: Interface): boolean =>
    i.on.every((on) => !interfaces.some((o) => o.name === on) || done.some((d) => d.name === on));
  for (let left = [...interfaces]; left.length > 0;) {
    const next = left.filter(ready);
    if (next.length === 0) return [...done, ...left];
    done.push(...next);
    left = left.filter((i) => !next.includes(i));
  }
  return done;
}

/** The VLAN whose tag frames of an interface carry when they leave its ports: that of the VLAN interface below it; null for none. */
export function tagOf(interfaces: readonly Interface[], name: string): number | null {
  const vlan = stackBelow(interfaces, name).find((i) => i.kind === "vlan");
  return vlan?.kind === "vlan" ? vlan.vlan : null;
}
