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
import { eachCase, listsOf, type Compared, type TruthReader } from "./reader";

const macSchema = z.record(z.string(), z.string().nullable());
const prefixSchema = z.looseObject({ input: z.string() });
type Row = Record<string, unknown> & { input: string };

/** Each value that was measured beside what Derrick says of it; a name that Derrick does not know is a difference. */
function* rowOf(
  what: string,
  measured: Record<string, unknown>,
  derrick: Record<string, unknown>,
): Generator<Compared> {
  for (const [name, value] of Object.entries(measured))
    if (name !== "input" && name !== "mac" && value !== null)
      yield { what: `${what}, ${name}`, measured: value, derrick: derrick[name] ?? null };
}

const SLAAC = "slaac_in_";
/** What the special-purpose registries say is not reached from everywhere; the shared space of providers is neither. */
const isPrivate = (address: string): boolean =>
  !["public", "shared", "multicast"].includes(addressKind(address) ?? "public");

function ofMac(measured: z.infer<typeof macSchema>): Record<string, unknown> {
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
    const lists = listsOf(path);
    yield* eachCase(lists.eui64, "eui64", macSchema, (row) => rowOf(row.mac ?? "", row, ofMac(row)));
    for (const family of ["ipv4", "ipv6"])
      yield* eachCase(lists[family], family, prefixSchema, (row) => rowOf(row.input, row, ofPrefix(row)));
  },
};

const nicSchema = z.object({
  mac: z.string(),
  mac_assign_type: z.number().nullish(),
  dev_port: z.number().nullish(),
  device_chain: z.string().nullish(),
  pci_address: z.string().nullish(),
  acpi_index: z.number().nullish(),
  names: z.record(z.string(), z.string()),
  hotplug_slots_on_the_way: z.record(z.string(), z.array(z.string())).nullish(),
  chosen_by_default_policy: z.string().nullish(),
});
type Nic = z.infer<typeof nicSchema>;
const lengthsSchema = z.record(z.string(), z.looseObject({ kernel_accepts: z.boolean() })).nullish();

/** What a machine tells of a port; whether its device has several functions is not among it. */
function portAt(nic: Nic): PortAt {
  const device = nic.pci_address?.replace(/\.\d$/, "");
  const slots = Object.entries(nic.hotplug_slots_on_the_way ?? {});
  const numberOf = (entry?: [string, string[]]): number | null => (entry ? Number(entry[1][0]) : null);
  const chain = (nic.device_chain ?? "").split("/");
  const above = slots
    .filter(([at]) => at.replace(/\.\d$/, "") !== device)
    .toSorted(
      ([a], [b]) => chain.findLastIndex((c) => c.startsWith(b)) - chain.findLastIndex((c) => c.startsWith(a)),
    );
  return {
    ...{ kind: "ethernet", mac: nic.mac, isOwnMac: (nic.mac_assign_type ?? 0) === 0 },
    pci: nic.pci_address ?? null,
    ...{ onboard: nic.acpi_index ?? null, devPort: nic.dev_port ?? 0, portName: null },
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
  if (nic.chosen_by_default_policy == null) return;
  const taken = candidates.find((c) => !c.isTooLong && Object.values(nic.names).includes(c.name));
  yield { what: `${nic.mac}, taken`, measured: nic.chosen_by_default_policy, derrick: taken?.name ?? null };
}

/** The names that a real system gave its ports: nic-names.json. */
export const portNameReader: TruthReader = {
  name: "names of ports",
  reads: (path) => /^nic-names(-.*)?\.json$/.test(basename(path)),
  *compare(path) {
    const { nics, name_length } = listsOf(path);
    yield* eachCase(nics, "ports", nicSchema, compareNic);
    for (const [name, { kernel_accepts }] of Object.entries(lengthsSchema.parse(name_length) ?? {}))
      yield {
        what: `${name}, accepted`,
        measured: kernel_accepts,
        derrick: name.length <= MOST_NAME_BYTES,
      };
  },
};
