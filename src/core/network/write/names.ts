import { addressSortKey, parsePrefix } from "../address";
import { reverseName } from "../prefix-facts";
import { oneLine } from "./dhcp";
import { isIpv6, isDomain, type WrittenFile } from "./host-plan";
import { fullName, namedHosts, type NamedHost, writable, type SitePlan } from "./site-plan";

/** Lines for /etc/hosts: the full name first, since that is what a system takes for its own. */
export function writeHosts(given: SitePlan): WrittenFile {
  const plan = writable(given);
  const lines = namedHosts(plan).map((h) =>
    [h.address, fullName(h), ...(h.domain ? [h.label] : [])].join("\t"),
  );
  return {
    path: "/etc/hosts",
    text: [`# Hosts of ${oneLine(plan.name)}, written by Derrick.`, ...lines, ""].join("\n"),
  };
}

/** The serial of a zone (RFC 1912, 2.2): the day and the number of the write on it, given by whoever writes. */
const head = (zone: string, serial: number, server: string): string[] => [
  `$ORIGIN ${zone}.`,
  "$TTL 3600",
  `@\tIN\tSOA\t${server} hostmaster.${zone}. (`,
  `\t\t${serial}\t; serial`,
  "\t\t7200\t; refresh",
  "\t\t900\t; retry",
  "\t\t1209600\t; expire",
  "\t\t300 )\t; time for which a name is known not to be there",
  `@\tIN\tNS\t${server}`,
];

/**
 * Who answers for names: the host that has a name server's address, or one called "ns1" with it. Null where the site names
 * no server: a zone without one is none.
 */
function serverOf(plan: SitePlan, hosts: readonly NamedHost[]): { name: string; record: string[] } | null {
  const servers = plan.segments.flatMap((s) => s.nameServers);
  const own = hosts.find((h) => servers.includes(h.address));
  if (own) return { name: `${fullName(own)}.`, record: [] };
  const [first] = servers;
  const record = `ns1\tIN\t${first && isIpv6(first) ? "AAAA" : "A"}\t${first}`;
  return first ? { name: `ns1.${plan.domain.toLowerCase()}.`, record: [record] } : null;
}

const inDomain = (plan: SitePlan): NamedHost[] =>
  namedHosts(plan).filter((h) => h.domain === plan.domain.toLowerCase());

/** The zone of the site's domain; null where the domain is none, or no name server is told. */
export function writeZone(given: SitePlan, serial: number): WrittenFile | null {
  const plan = writable(given);
  if (!isDomain(plan.domain)) return null;
  const hosts = inDomain(plan);
  const server = serverOf(plan, hosts);
  if (!server) return null;
  const records = hosts.map((h) => `${h.label}\tIN\t${isIpv6(h.address) ? "AAAA" : "A"}\t${h.address}`);
  const text = [
    ...head(plan.domain.toLowerCase(), serial, server.name),
    ...server.record,
    ...records,
    "",
  ].join("\n");
  return { path: `/etc/bind/db.${plan.domain}`, text };
}

/** The zone in which the reverse names of a prefix stand: whole labels of it (RFC 1035, 3.5; RFC 3596, 2.5). */
export function reverseZoneOf(prefix: string): string | null {
  const parsed = parsePrefix(prefix);
  if (!parsed) return null;
  const step = parsed.family === "ipv4" ? 8 : 4;
  const labels = Math.floor(parsed.length / step);
  const parts = (reverseName(parsed.network) ?? "").split(".");
  const total = parsed.family === "ipv4" ? 4 : 32;
  return parts.slice(total - labels).join(".");
}

/** A reverse zone for each network whose length has one, with the hosts in it. */
export function writeReverseZones(given: SitePlan, serial: number): WrittenFile[] {
  const plan = writable(given);
  if (!isDomain(plan.domain)) return [];
  const hosts = namedHosts(plan);
  const zones = [...new Set(plan.segments.flatMap((s) => reverseZoneOf(s.prefix) ?? []))];
  const server = serverOf(plan, inDomain(plan));
  if (!server) return [];
  return zones.map((zone) => {
    const own = hosts.filter((h) => reverseName(h.address)?.endsWith(`.${zone}`));
    // One name for an address: of several the first stands, since a reverse name is one.
    const byAddress = new Map([...own].reverse().map((h) => [addressSortKey(h.address), h]));
    const records = [...byAddress.values()]
      .reverse()
      .map((h) => `${reverseName(h.address)?.slice(0, -zone.length - 1)}\tIN\tPTR\t${fullName(h)}.`);
    return {
      path: `/etc/bind/db.${zone}`,
      text: [...head(zone, serial, server.name), ...records, ""].join("\n"),
    };
  });
}
