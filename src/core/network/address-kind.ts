import ipaddr from "ipaddr.js";
import { contains, isAddress } from "./address";

/** Prefixes that stand in books and examples, and on no network (RFC 5737, 3849, 9637). */
const EXAMPLES = ["192.0.2.0/24", "198.51.100.0/24", "203.0.113.0/24", "2001:db8::/32", "3fff::/20"];
/** For measuring networks (RFC 2544). */
const MEASURING = "198.18.0.0/15";

/** Each kind of address, with what it means to somebody who reads it on a console. */
export const ADDRESS_KINDS = {
  public: "public, reachable from everywhere, unless a firewall blocks it",
  private: "private, valid inside one site only",
  "unique local": "unique local, the IPv6 form of a private address",
  "no answer": "self-assigned because no DHCP server responded: check cable, VLAN and DHCP server",
  "link local": "link-local, every port assigns itself one; it works on its own link only",
  shared: "shared, behind the NAT of a provider, not reachable from outside",
  loopback: "loopback, the machine itself only",
  multicast: "multicast, a group of listeners, not a machine",
  broadcast: "broadcast, all machines of a network at once",
  unspecified: "unspecified, no address is assigned",
  example: "reserved for documentation: not usable",
  measuring: "reserved for benchmarks: not usable otherwise",
  "IPv4 in IPv6": "an IPv4 address written as an IPv6 address",
  special: "reserved for a special purpose: not usable by a machine",
} as const;
export type AddressKind = keyof typeof ADDRESS_KINDS;

const BY_RANGE: Readonly<Record<string, AddressKind>> = {
  ...{ unicast: "public", private: "private", uniqueLocal: "unique local", linkLocal: "link local" },
  ...{ carrierGradeNat: "shared", loopback: "loopback", multicast: "multicast", broadcast: "broadcast" },
  ...{ unspecified: "unspecified", ipv4Mapped: "IPv4 in IPv6" },
};

/** What kind of address a text is (IANA's special-purpose registries); null when it is none. */
export function addressKind(text: string): AddressKind | null {
  if (!isAddress(text)) return null;
  if (EXAMPLES.some((prefix) => contains(prefix, text))) return "example";
  if (contains(MEASURING, text)) return "measuring";
  const kind = BY_RANGE[ipaddr.parse(text).range()] ?? "special";
  return kind === "link local" && !text.includes(":") ? "no answer" : kind;
}
