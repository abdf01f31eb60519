import { boundKeysOf, contains, isAddress, netmaskOf, parsePrefix } from "../address";
import { isMac } from "../interface";
import type { Segment } from "../segment";
import type { WrittenFile } from "./host-plan";
import { labelOf, type SitePlan } from "./site-plan";

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
    .sort((a, b) =>
      (boundKeysOf(`${a.address}/32`)?.first ?? a.address).localeCompare(
        boundKeysOf(`${b.address}/32`)?.first ?? b.address,
      ),
    )
    .map(({ mac, address, name }) => ({ mac, address, label: labelOf(name) }));
}

const tagOf = (segment: Segment, i: number): string => labelOf(segment.name) ?? `network-${i + 1}`;

/** A configuration for dnsmasq that gives out what the site's IPv4 networks plan, and nothing to others than by their MAC. */
export function writeDnsmasq(plan: SitePlan): WrittenFile {
  const networks = plan.segments.filter(isIpv4).flatMap((s, i): string[] => {
    const prefix = parsePrefix(s.prefix)!;
    const [tag, mask] = [tagOf(s, i), netmaskOf(prefix.length)];
    const reserved = reservationsOf(plan, s);
    if (s.dhcp.length === 0 && reserved.length === 0) return [];
    // Without a range of its own a network answers those who are reserved, and no one else.
    const ranges =
      s.dhcp.length > 0
        ? s.dhcp.map((r) => `dhcp-range=set:${tag},${r.from},${r.to},${mask},12h`)
        : [`dhcp-range=set:${tag},${boundText(s.prefix)},static,${mask},12h`];
    return [
      ...["", `# ${oneLine(s.name)}, ${s.prefix}`, ...ranges],
      ...(s.gateway
        ? [`dhcp-option=tag:${tag},option:router,${s.gateway}`]
        : [`dhcp-option=tag:${tag},option:router`]),
      ...(s.nameServers.length > 0
        ? [`dhcp-option=tag:${tag},option:dns-server,${s.nameServers.join(",")}`]
        : []),
      ...reserved.map((r) => `dhcp-host=${[r.mac, r.address, r.label].filter(Boolean).join(",")}`),
    ];
  });
  const domain = plan.domain ? [`domain=${plan.domain}`] : [];
  const lines = [`# Networks of ${oneLine(plan.name)}, written by Derrick.`, ...domain, ...networks];
  return { path: "/etc/dnsmasq.d/derrick.conf", text: `${lines.join("\n")}\n` };
}

/** The first address of a prefix, as it stands in it. */
const boundText = (prefix: string): string => parsePrefix(prefix)?.network ?? prefix;

/** A text for a comment: whatever could end its line is a blank. */
export const oneLine = (text: string): string => text.replace(/[\p{Cc}\p{Zl}\p{Zp}]+/gu, " ").trim();

const option = (name: string, data: string) => ({ name, data });

/** The part of a Kea configuration for IPv4: networks, ranges and reservations, by MAC and not by what clients call themselves. */
export function writeKea(plan: SitePlan): WrittenFile {
  const subnet4 = plan.segments.filter(isIpv4).map((s, i) => ({
    ...{ id: i + 1, subnet: s.prefix, "user-context": { name: s.name } },
    pools: s.dhcp.map((r) => ({ pool: `${r.from} - ${r.to}` })),
    "option-data": [
      ...(s.gateway ? [option("routers", s.gateway)] : []),
      ...(s.nameServers.length > 0 ? [option("domain-name-servers", s.nameServers.join(", "))] : []),
      ...(plan.domain ? [option("domain-name", plan.domain)] : []),
    ],
    reservations: reservationsOf(plan, s).map((r) => ({
      ...{ "hw-address": r.mac, "ip-address": r.address },
      ...(r.label && { hostname: r.label }),
    })),
  }));
  const tree = {
    Dhcp4: {
      "match-client-id": false,
      "host-reservation-identifiers": ["hw-address"],
      "lease-database": { type: "memfile", persist: true },
      subnet4,
    },
  };
  return { path: "/etc/kea/kea-dhcp4.conf", text: `${JSON.stringify(tree, null, 2)}\n` };
}
