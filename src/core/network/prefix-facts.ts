import { formatNumber } from "../units";
import ipaddr from "ipaddr.js";
import { boundsOf, edgeOf, isAddress, netmaskOf, networkOf, parsePrefix, toText } from "./address";

/** What follows from an IPv4 address with its prefix length. */
export interface Ipv4Facts {
  family: "ipv4";
  netmask: string;
  /** The bits that a machine may choose, as access lists of switches want them. */
  wildcard: string;
  network: string;
  /** Null for /31 and /32, which have none. */
  broadcast: string | null;
  firstHost: string;
  lastHost: string;
  addresses: number;
  /** A /31 joins two hosts (RFC 3021), a /32 is one. */
  hosts: number;
  /** The address is one of the two that no machine may have. */
  isEdge: boolean;
}

/** What follows from an IPv6 address with its prefix length. */
export interface Ipv6Facts {
  family: "ipv6";
  /** As RFC 5952 wants it written. */
  compressed: string;
  exploded: string;
  network: string;
  last: string;
  addresses: bigint;
  /** Networks of 64 bits in it; null where it is smaller than one. */
  subnets: bigint | null;
}

const TWO_HOSTS = 31;
const SUBNET = 64;

/** "10.61.10.40/24" or "fd61::1/64" taken apart; null where it is no address with a prefix length. */
export function prefixFacts(text: string): Ipv4Facts | Ipv6Facts | null {
  const prefix = parsePrefix(text);
  if (!prefix) return null;
  const { first, last } = boundsOf(prefix);
  if (prefix.family === "ipv6") return ipv6Facts(prefix.network, prefix.length, last - first + 1n);
  const inner = prefix.length < TWO_HOSTS ? 1n : 0n;
  return {
    family: "ipv4",
    netmask: netmaskOf(prefix.length),
    wildcard: toText(last - first),
    network: toText(first),
    broadcast: inner ? toText(last) : null,
    firstHost: toText(first + inner),
    lastHost: toText(last - inner),
    addresses: Number(last - first + 1n),
    hosts: Number(last - first + 1n - 2n * inner),
    isEdge: edgeOf(text.trim(), prefix.network) !== null,
  };
}

const exploded = ({ parts }: ipaddr.IPv6): string =>
  parts.map((part) => part.toString(16).padStart(4, "0")).join(":");

function ipv6Facts(address: string, length: number, addresses: bigint): Ipv6Facts {
  const parsed = ipaddr.IPv6.parse(address);
  return {
    family: "ipv6",
    compressed: parsed.toRFC5952String(),
    exploded: exploded(parsed),
    network: networkOf(address, length)!,
    last: ipaddr.IPv6.broadcastAddressFromCIDR(`${address}/${length}`).toRFC5952String(),
    addresses,
    subnets: length <= SUBNET ? 1n << BigInt(SUBNET - length) : null,
  };
}

/** The name under which the owner of an address is looked up: "40.10.61.10.in-addr.arpa"; null where it is none. */
export function reverseName(text: string): string | null {
  if (!isAddress(text)) return null;
  if (!text.includes(":")) return `${text.split(".").toReversed().join(".")}.in-addr.arpa`;
  const digits = exploded(ipaddr.IPv6.parse(text)).replaceAll(":", "");
  return `${[...digits].toReversed().join(".")}.ip6.arpa`;
}

const hostWords = ({ hosts, firstHost, lastHost, netmask }: Ipv4Facts): string =>
  hosts === 1
    ? `one host, ${firstHost}, mask ${netmask}`
    : `${formatNumber(hosts)} hosts, ${firstHost} to ${lastHost}, mask ${netmask}`;

function networkWords({ network, last, subnets }: Ipv6Facts): string {
  const many = subnets === 1n ? "one network" : `${formatNumber(subnets ?? 0n)} networks`;
  return `${subnets === null ? "part of one network" : many} of /64, ${network} to ${last}`;
}

/** What a prefix holds, in words: its hosts and mask, or its networks of 64 bits; null where it is none. */
export function prefixWords(prefix: string): string | null {
  const facts = prefixFacts(prefix);
  return facts && (facts.family === "ipv4" ? hostWords(facts) : networkWords(facts));
}
