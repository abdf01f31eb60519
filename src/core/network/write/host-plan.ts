import { fail, ok, type Problem, type Result } from "../../result";
import { factsOf } from "../../machine";
import { addressSortKey, addressText, isAddress, prefixLengthOf } from "../address";
import type { PlannedOn } from "../ground";
import { segmentOf } from "../ground";
import { buildOrder, circles, isInterfaceName, isMac, type BondMode, type Interface } from "../interface";

/** How an interface gets its address, as files say it. */
export type LinkAddress =
  | { how: "dhcp" }
  | {
      how: "fixed";
      address: string;
      length: number;
      gateway: string | null;
      nameServers: readonly string[];
    };

interface Link {
  name: string;
  mtu: number | null;
  address: LinkAddress | null;
}

/** One interface of the machine that is built, made after those that it stands on. */
export type LinkPlan = Link &
  (
    | { kind: "port"; mac: string }
    | { kind: "bond"; members: string[]; mode: BondMode; hash: string }
    | { kind: "vlan"; parent: string; vlan: number }
    | { kind: "bridge"; members: string[]; vlanAware: boolean; vlans: string }
  );

/** What the files of a machine's network are written from: names, addresses and numbers that have been checked. */
export interface HostPlan {
  hostName: string;
  domain: string;
  links: LinkPlan[];
}

/** A file as it is written: its place on the machine, and all of its text. */
export interface WrittenFile {
  path: string;
  text: string;
}

/** A label of a host name: letters, digits and dashes, as RFC 1123 (2.1) has it. */
export const isLabel = (text: string): boolean => /^[a-z\d](?:[a-z\d-]{0,61}[a-z\d])?$/i.test(text);
/** A domain: labels between dots, 253 characters at most. */
export const isDomain = (text: string): boolean =>
  text.length <= 253 && text !== "" && text.split(".").every(isLabel);

const openQuestion = (message: string): Problem => ({ message });

/** What stands in the way of writing anything: questions that the sheet has not answered, or answers that do not fit. */
function hindrances(ground: PlannedOn, host: { hostName: string; domain: string }): Problem[] {
  const { network } = ground.sheet;
  const segment = segmentOf(ground);
  const ports = factsOf(ground)?.ports ?? [];
  const round = circles(network.interfaces);
  const isFixed = network.school === "fixed";
  return [
    ...(isLabel(host.hostName) ? [] : [openQuestion("the host name is missing or invalid")]),
    ...(host.domain === "" || isDomain(host.domain)
      ? []
      : [openQuestion(`"${host.domain.slice(0, 60)}" is not a domain`)]),
    ...(network.port && ports.some((p) => p.mac === network.port)
      ? []
      : [openQuestion("the management port is not chosen")]),
    ...(isFixed && !isAddress(network.address) ? [openQuestion("the address is missing or invalid")] : []),
    ...(isFixed && !segment
      ? [openQuestion("the network is not chosen, so the prefix length is unknown")]
      : []),
    ...(isFixed && network.gateway !== "" && !isAddress(network.gateway)
      ? [openQuestion("the gateway is not an address")]
      : []),
    ...(isFixed && network.nameServers.some((a) => !isAddress(a))
      ? [openQuestion("a DNS server is not an address")]
      : []),
    ...network.interfaces.flatMap((i) =>
      i.kind === "virtual switch"
        ? [openQuestion(`${i.name} is a virtual switch: only hypervisors support it`)]
        : !isInterfaceName(i.name) || round.includes(i.name) || (i.kind === "vlan" && i.vlan === null)
          ? [openQuestion(`the ${i.kind} ${i.name || "(unnamed)"} is invalid`)]
          : [],
    ),
  ];
}

/** The name of a port in the files: that of a "port" interface on it, else the one under which it was read. */
function portNamesIn(ground: PlannedOn): Map<string, string> {
  const named = ground.sheet.network.interfaces.filter((i) => i.kind === "port");
  return new Map(
    (factsOf(ground)?.ports ?? []).map((p) => [
      p.mac,
      named.find((i) => i.on.includes(p.mac))?.name ?? p.seenAs,
    ]),
  );
}

function otherAddress(ground: PlannedOn, one: Interface): LinkAddress | null {
  const segment = ground.site?.segments.find((s) => s.id === one.segment);
  const length = segment ? prefixLengthOf(segment.prefix) : null;
  return isAddress(one.address) && length !== null
    ? { how: "fixed", address: one.address, length, gateway: null, nameServers: [] }
    : null;
}

function managementAddress(ground: PlannedOn): LinkAddress {
  const { school, address, gateway, nameServers } = ground.sheet.network;
  if (school !== "fixed") return { how: "dhcp" };
  const length = prefixLengthOf(segmentOf(ground)?.prefix ?? "") ?? 0;
  return { how: "fixed", address, length, gateway: gateway || null, nameServers };
}

/** VLANs that guests of a VLAN-aware bridge may use: those of the site's segments. */
const guestVlans = (ground: PlannedOn): string =>
  [...new Set((ground.site?.segments ?? []).flatMap((s) => s.vlan ?? []))].sort((a, b) => a - b).join(" ");

/** What a link is made on and how: names that no file takes for more than a name. */
function namesPlainly(link: LinkPlan): boolean {
  if (link.kind === "port") return true;
  const on = link.kind === "vlan" ? [link.parent] : link.members;
  const how = link.kind === "bond" ? [link.mode, link.hash] : [];
  return on.every(isInterfaceName) && how.every((word) => /^[\w.+-]*$/.test(word));
}

/** The network of the machine as its files describe it; the problems are what the sheet has still to say. */
export function hostPlan(ground: PlannedOn, host: { hostName: string; domain: string }): Result<HostPlan> {
  const problems = hindrances(ground, host);
  if (problems.length > 0) return fail(...problems);
  const { network } = ground.sheet;
  const names = portNamesIn(ground);
  const nameOf = (on: string): string => (isMac(on) ? (names.get(on) ?? on) : on);
  const carrier = network.carrier ?? names.get(network.port ?? "") ?? "";
  const used = new Set([network.port ?? "", ...network.interfaces.flatMap((i) => i.on.filter(isMac))]);
  const ports = [...used]
    .filter((mac) => names.has(mac))
    .map((mac): LinkPlan => {
      const own = network.interfaces.find((i) => i.kind === "port" && i.on.includes(mac));
      const above = network.interfaces.filter((i) => i.on.includes(mac)).flatMap((i) => i.mtu ?? []);
      const mtu = own?.mtu ?? (above.length > 0 ? Math.max(...above) : null);
      return { kind: "port", name: nameOf(mac), mac, mtu, address: own ? otherAddress(ground, own) : null };
    });
  const bad = ports.filter((p) => !isInterfaceName(p.name)).map((p) => p.name);
  if (bad.length > 0)
    return fail(
      openQuestion(`"${bad[0]!.slice(0, 60)}" is not a port name of Linux: enter an interface name`),
    );
  const others = buildOrder(network.interfaces).flatMap((i): LinkPlan[] => {
    const link = { name: i.name, mtu: i.mtu, address: otherAddress(ground, i) };
    const members = i.on.map(nameOf);
    if (i.kind === "bond") return [{ ...link, kind: "bond", members, mode: i.mode, hash: i.hash }];
    if (i.kind === "vlan") return [{ ...link, kind: "vlan", parent: members[0] ?? "", vlan: i.vlan! }];
    if (i.kind !== "bridge") return [];
    return [{ ...link, kind: "bridge", members, vlanAware: i.vlanAware, vlans: guestVlans(ground) }];
  });
  const odd = others.find((link) => !namesPlainly(link));
  if (odd) return fail(openQuestion(`the ${odd.kind} ${odd.name} has an invalid parent interface or mode`));
  const links = [...ports, ...others].map((link) =>
    link.name === carrier ? { ...link, address: managementAddress(ground) } : link,
  );
  return ok({ ...host, links });
}

export const isIpv6 = (address: string): boolean => address.includes(":");
/** "10.61.10.20/24". */
export const withLength = ({ address, length }: { address: string; length: number }): string =>
  `${addressText(addressSortKey(address) ?? "")}/${length}`;

/** The first line of every file: whose it is, and that it is written anew. */
export const HEAD = (plan: HostPlan): string =>
  `Network of ${[plan.hostName, plan.domain].filter(Boolean).join(".")}, written by Derrick from its build sheet.`;
