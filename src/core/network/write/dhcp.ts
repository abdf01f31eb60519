import { addressSortKey, contains, isAddress, netmaskOf, parsePrefix } from "../address";
import { isMac } from "../interface";
import type { Segment } from "../segment";
import type { WrittenFile } from "./host-plan";
import { labelOf, writable, type SitePlan } from "./site-plan";

interface Reservation {
  mac: string;
  address: string;
  label: string | null;
}

const isIpv4 = (s: Segment): boolean => parsePrefix(s.prefix)?.family === "ipv4";

/** What is reserved in a segment: by the site itself, and by sheets whose address is "reserved"; one a MAC, the site's first. */
export function reservationsOf(plan: SitePlan, segment: Segment): Reservation[] {
  const own = segment.reservations.map((r) => ({
    mac: r.mac.toLowerCase(),
    address: r.address,
    name: r.name,
  }));
  const planned = plan.hosts.flatMap((h) =>
    h.mac !== null && contains(segment.prefix, h.address)
      ? [{ mac: h.mac.toLowerCase(), address: h.address, name: h.name }]
      : [],
  );
  const byMac = new Map([...planned, ...own].map((r) => [r.mac, r]));
  return [...byMac.values()]
    .filter((r) => isMac(r.mac) && isAddress(r.address))
    .sort((a, b) => order(a.address).localeCompare(order(b.address)))
    .map(({ mac, address, name }) => ({ mac, address, label: labelOf(name) }));
}

const order = (address: string): string => addressSortKey(address) ?? address;

/** The name servers of a network that DHCP of its own family can tell, and those that it cannot. */
function nameServersOf(s: Segment): { told: string[]; other: string[] } {
  const family = isIpv4(s);
  const told = s.nameServers.filter((a) => !a.includes(":") === family);
  return { told, other: s.nameServers.filter((a) => !told.includes(a)) };
}

const OTHER_FAMILY = "Not provided by DHCP here, because it is of the other address family: ";
const MANAGED = "Clients request an address here when router advertisements tell them to (managed flag).";

const tagOf = (segment: Segment, i: number): string => labelOf(segment.name) ?? `network-${i + 1}`;

/** The shortest IPv6 prefix that dnsmasq gives addresses out in; a shorter one ends the reading of its whole file. */
const SHORTEST_IPV6 = 64;

/** What dnsmasq is told of one network; the tag ties its options to its ranges. */
function dnsmasqNetwork(s: Segment, tag: string, reserved: readonly Reservation[]): string[] {
  const prefix = parsePrefix(s.prefix)!;
  const [four, { told, other }] = [isIpv4(s), nameServersOf(s)];
  if (!four && prefix.length < SHORTEST_IPV6)
    return ["# Not given out: this program takes IPv6 networks of /64 and longer only."];
  const mask = four ? netmaskOf(prefix.length) : String(prefix.length);
  // Without a range of its own a network answers those who are reserved, and no one else.
  const ranges =
    s.dhcp.length > 0
      ? s.dhcp.map((r) => `dhcp-range=set:${tag},${r.from},${r.to},${mask},12h`)
      : [`dhcp-range=set:${tag},${prefix.network},static,${mask},12h`];
  const names = four ? told.join(",") : told.map((a) => `[${a}]`).join(",");
  return [
    ...(four ? [] : [`# ${MANAGED}`]),
    ...(other.length > 0 ? [`# ${OTHER_FAMILY}${other.join(", ")}`] : []),
    ...ranges,
    ...(four ? [`dhcp-option=tag:${tag},option:router${s.gateway ? `,${s.gateway}` : ""}`] : []),
    ...(names ? [`dhcp-option=tag:${tag},option${four ? "" : "6"}:dns-server,${names}`] : []),
    ...reserved.map((r) =>
      ["dhcp-host=" + r.mac, four ? r.address : `[${r.address}]`, r.label].filter(Boolean).join(","),
    ),
  ];
}

/** A configuration for dnsmasq that gives out what the site's networks plan, and nothing to others than by their MAC. */
export function writeDnsmasq(given: SitePlan): WrittenFile {
  const plan = writable(given);
  const networks = plan.segments.flatMap((s, i): string[] => {
    const reserved = reservationsOf(plan, s);
    if (s.dhcp.length === 0 && reserved.length === 0) return [];
    return ["", `# ${oneLine(s.name)}, ${s.prefix}`, ...dnsmasqNetwork(s, tagOf(s, i), reserved)];
  });
  const domain = plan.domain ? [`domain=${plan.domain}`] : [];
  const lines = [`# Networks of ${oneLine(plan.name)}, written by Derrick.`, ...domain, ...networks];
  return { path: "/etc/dnsmasq.d/derrick.conf", text: `${lines.join("\n")}\n` };
}

/** A text for a comment: whatever could end its line is a blank. */
export const oneLine = (text: string): string => text.replace(/[\p{Cc}\p{Zl}\p{Zp}]+/gu, " ").trim();

const option = (name: string, data: string) => ({ name, data });

const POOLS = (s: Segment) => s.dhcp.map((r) => ({ pool: `${r.from} - ${r.to}` }));
const LEASES = { type: "memfile", persist: true };
const BY_MAC = { "host-reservation-identifiers": ["hw-address"], "lease-database": LEASES };

/** What Kea keeps for people beside a network: its name, and what the network needs besides. */
function context(s: Segment, ...more: readonly string[]) {
  const { other } = nameServersOf(s);
  const comment = [...more, ...(other.length > 0 ? [OTHER_FAMILY + other.join(", ")] : [])].join(" ");
  return { "user-context": { name: s.name, ...(comment && { comment }) } };
}

/** The part of a Kea configuration for IPv4: networks, ranges and reservations, by MAC and not by what clients call themselves. */
export function writeKea(given: SitePlan): WrittenFile {
  const plan = writable(given);
  const subnet4 = plan.segments.filter(isIpv4).map((s, i) => ({
    ...{ id: i + 1, subnet: s.prefix, ...context(s) },
    pools: POOLS(s),
    "option-data": [
      ...(s.gateway ? [option("routers", s.gateway)] : []),
      ...nameOptions(s, "domain-name-servers"),
      ...(plan.domain ? [option("domain-name", plan.domain)] : []),
    ],
    reservations: reservationsOf(plan, s).map((r) => ({
      ...{ "hw-address": r.mac, "ip-address": r.address },
      ...(r.label && { hostname: r.label }),
    })),
  }));
  const tree = { Dhcp4: { "match-client-id": false, ...BY_MAC, subnet4 } };
  return { path: "/etc/kea/kea-dhcp4.conf", text: `${JSON.stringify(tree, null, 2)}\n` };
}

const nameOptions = (s: Segment, name: string) => {
  const { told } = nameServersOf(s);
  return told.length > 0 ? [option(name, told.join(", "))] : [];
};

const INTERFACE = 'Add the interface that serves this network: "interface": "…".';

/**
 * The part of a Kea configuration for IPv6; null where no network is. The MAC is taken from wherever a request shows it.
 * Which interface serves a network is not known here: unlike IPv4, a network is not found by the server's own address.
 */
export function writeKea6(given: SitePlan): WrittenFile | null {
  const plan = writable(given);
  const subnet6 = plan.segments
    .filter((s) => !isIpv4(s))
    .map((s, i) => ({
      ...{ id: i + 1, subnet: s.prefix, ...context(s, INTERFACE, MANAGED) },
      pools: POOLS(s),
      "option-data": [
        ...nameOptions(s, "dns-servers"),
        ...(plan.domain ? [option("domain-search", plan.domain)] : []),
      ],
      reservations: reservationsOf(plan, s).map((r) => ({
        ...{ "hw-address": r.mac, "ip-addresses": [r.address] },
        ...(r.label && { hostname: r.label }),
      })),
    }));
  if (subnet6.length === 0) return null;
  const tree = { Dhcp6: { "mac-sources": ["any"], ...BY_MAC, subnet6 } };
  return { path: "/etc/kea/kea-dhcp6.conf", text: `${JSON.stringify(tree, null, 2)}\n` };
}
