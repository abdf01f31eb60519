import { readFileSync } from "node:fs";
import { basename } from "node:path";
import { z } from "zod";
import {
  addressKind,
  eui64,
  linkLocalAddress,
  MOST_NAME_BYTES,
  predictPortNames,
  prefixFacts,
  reverseName,
  slaacAddress,
  type PortAt,
} from "@/core/network";
import type { Compared, TruthReader } from "./reader";

const ipSchema = z.object({
  eui64: z.array(z.record(z.string(), z.string())).default([]),
  ipv4: z.array(z.looseObject({ input: z.string() })).default([]),
  ipv6: z.array(z.looseObject({ input: z.string() })).default([]),
});
type Row = Record<string, unknown> & { input: string };

/** Each value that was measured beside what Derrick says of it; a name that Derrick does not know is a difference. */
function* rowOf(
  what: string,
  measured: Record<string, unknown>,
  derrick: Record<string, unknown>,
): Generator<Compared> {
  for (const [name, value] of Object.entries(measured))
    if (name !== "input" && name !== "mac")
      yield { what: `${what}, ${name}`, measured: value, derrick: derrick[name] ?? null };
}

const SLAAC = "slaac_in_";
/** What the special-purpose registries say is not reached from everywhere; the shared space of providers is neither. */
const isPrivate = (address: string): boolean =>
  !["public", "shared", "multicast"].includes(addressKind(address) ?? "public");

function ofMac(measured: Record<string, string>): Record<string, unknown> {
  const mac = measured.mac ?? "";
  const slaac = Object.keys(measured)
    .filter((name) => name.startsWith(SLAAC))
    .map((name) => [name, slaacAddress(name.slice(SLAAC.length), mac)] as const);
  return { link_local: linkLocalAddress(mac), eui64: eui64(mac), ...Object.fromEntries(slaac) };
}

function ofPrefix({ input }: Row): Record<string, unknown> {
  const facts = prefixFacts(input);
  const address = input.split("/")[0]!;
  if (!facts) return {};
  if (facts.family === "ipv6")
    return {
      ...{ compressed: facts.compressed, exploded: facts.exploded, network: facts.network, last: facts.last },
      ...{
        addresses: String(facts.addresses),
        subnets_64: facts.subnets === null ? null : String(facts.subnets),
      },
      reverse_ptr: reverseName(address),
      link_local: addressKind(address) === "link local",
      unique_local: addressKind(address) === "unique local",
    };
  return {
    ...{
      netmask: facts.netmask,
      wildcard: facts.wildcard,
      network: facts.network,
      broadcast: facts.broadcast,
    },
    ...{ first_host: facts.firstHost, last_host: facts.lastHost, addresses: facts.addresses },
    ...{
      usable_hosts: facts.hosts,
      input_is_network_or_broadcast: facts.isEdge,
      private: isPrivate(address),
    },
  };
}

/** Masks, hosts, reverse names and the addresses that appear unasked: ip.json. */
export const ipReader: TruthReader = {
  name: "addresses and prefixes",
  // What the tool of that name prints is read by another.
  reads: (path) => /^ip(-(?!link|addr|route|neigh|rule).*)?\.json$/.test(basename(path)),
  *compare(path) {
    const cases = ipSchema.parse(JSON.parse(readFileSync(path, "utf8")));
    for (const row of cases.eui64) yield* rowOf(row.mac ?? "", row, ofMac(row));
    for (const row of [...cases.ipv4, ...cases.ipv6]) yield* rowOf(row.input, row, ofPrefix(row));
  },
};

const nicSchema = z.object({
  mac: z.string(),
  mac_assign_type: z.number(),
  dev_port: z.number(),
  device_chain: z.string(),
  pci_address: z.string().nullable(),
  acpi_index: z.number().nullable(),
  names: z.record(z.string(), z.string()),
  hotplug_slots_on_the_way: z.record(z.string(), z.array(z.string())),
  chosen_by_default_policy: z.string(),
});
type Nic = z.infer<typeof nicSchema>;
const nicsSchema = z.object({
  nics: z.array(nicSchema),
  name_length: z
    .record(z.string(), z.object({ length: z.number(), kernel_accepts: z.boolean() }))
    .default({}),
});

/** What a machine tells of a port; whether its device has several functions is not among it. */
function portAt(nic: Nic): PortAt {
  const device = nic.pci_address?.replace(/\.\d$/, "");
  const slots = Object.entries(nic.hotplug_slots_on_the_way);
  const numberOf = (entry?: [string, string[]]): number | null => (entry ? Number(entry[1][0]) : null);
  const chain = nic.device_chain.split("/");
  const above = slots
    .filter(([at]) => at.replace(/\.\d$/, "") !== device)
    .toSorted(
      ([a], [b]) => chain.findLastIndex((c) => c.startsWith(b)) - chain.findLastIndex((c) => c.startsWith(a)),
    );
  return {
    ...{ kind: "ethernet", mac: nic.mac, isOwnMac: nic.mac_assign_type === 0, pci: nic.pci_address },
    ...{ onboard: nic.acpi_index, devPort: nic.dev_port, portName: null },
    slot: numberOf(slots.find(([at]) => at.replace(/\.\d$/, "") === device)),
    bridgeSlot: numberOf(above[0]),
  };
}

/**
 * Each name that was measured stands among the candidates of its kind, and the one that the system took is the first of
 * those that were measured.
 */
function* compareNic(nic: Nic): Generator<Compared> {
  const candidates = predictPortNames(portAt(nic));
  const kinds = [...new Set([...Object.keys(nic.names), ...candidates.map((c) => c.by)])];
  for (const by of kinds) {
    const names = candidates.filter((c) => c.by === by).map((c) => c.name);
    const measured = nic.names[by] ?? null;
    const isAmong = measured !== null && names.includes(measured);
    yield {
      what: `${nic.mac}, ${by}`,
      measured,
      derrick: isAmong ? measured : names.length > 0 ? names : null,
    };
  }
  const taken = candidates.find((c) => !c.isTooLong && Object.values(nic.names).includes(c.name));
  yield { what: `${nic.mac}, taken`, measured: nic.chosen_by_default_policy, derrick: taken?.name ?? null };
}

/** The names that a real system gave its ports: nic-names.json. */
export const portNameReader: TruthReader = {
  name: "names of ports",
  reads: (path) => /^nic-names(-.*)?\.json$/.test(basename(path)),
  *compare(path) {
    const { nics, name_length: lengths } = nicsSchema.parse(JSON.parse(readFileSync(path, "utf8")));
    for (const nic of nics) yield* compareNic(nic);
    for (const [name, { kernel_accepts: measured }] of Object.entries(lengths))
      yield { what: `${name}, accepted`, measured, derrick: name.length <= MOST_NAME_BYTES };
  },
};
