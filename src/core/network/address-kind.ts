import ipaddr from "ipaddr.js";
import { contains, isAddress } from "./address";

/** Prefixes that stand in books and examples, and on no network (RFC 5737, 3849, 9637). */
const EXAMPLES = ["192.0.2.0/24", "198.51.100.0/24", "203.0.113.0/24", "2001:db8::/32", "3fff::/20"];
/** For measuring networks (RFC 2544). */
const MEASURING = "198.18.0.0/15";

/** Each kind of address, with what it means to somebody who reads it on a console. */
export const ADDRESS_KINDS = {
  public: "public: it is reached from everywhere, as far as no firewall stands before it",
  private: "private: it means something at one site only",
  "unique local": "unique local: the IPv6 form of a private address",
  "no answer":
    "made up by the machine itself, since no DHCP server answered: look at cable, VLAN and DHCP server",
  "link local": "link local: every port gives itself one, and it works on its own cable only",
  shared: "shared: a provider stands between it and the internet, and nobody outside can reach it",
  loopback: "loopback: the machine itself, and nobody else",
  multicast: "multicast: a group of listeners, and no machine",
  broadcast: "broadcast: all machines of a network at once, and none alone",
  unspecified: "no address at all: nothing was given yet",
  example: "kept for examples in books: it works nowhere",
  measuring: "kept for measuring networks: it works nowhere else",
  "IPv4 in IPv6": "an IPv4 address written as an IPv6 one",
  special: "kept for a purpose of its own: no machine should have it",
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
