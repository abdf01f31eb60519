import ipaddr from "ipaddr.js";

export interface Prefix {
  network: string;
  length: number;
  family: "ipv4" | "ipv6";
}

/** True for one full IPv4 (four decimal parts) or IPv6 address, without a zone or a prefix length. */
export const isAddress = (text: string): boolean =>
  ipaddr.IPv4.isValidFourPartDecimal(text) || (ipaddr.IPv6.isValid(text) && !text.includes("%"));

/** The address as one number, for comparing; IPv4 and IPv6 do not mix. Null when it is not an address. */
function numberOf(text: string): { family: Prefix["family"]; value: bigint } | null {
  if (!isAddress(text)) return null;
  const parsed = ipaddr.parse(text);
  const value = parsed.toByteArray().reduce((sum, byte) => sum * 256n + BigInt(byte), 0n);
  return { family: parsed.kind(), value };
}

/** One spelling for each address, so that fd61:0::1 and FD61::1 are found to be the same; null when it is none. */
export function addressKey(text: string): string | null {
  // Four decimal parts are valid in one spelling only; most addresses of a site are compared here, and need no parsing.
  if (ipaddr.IPv4.isValidFourPartDecimal(text)) return text;
  return isAddress(text) ? ipaddr.parse(text).toNormalizedString() : null;
}

const sortKeyOf = (family: Prefix["family"], value: bigint): string =>
  (family === "ipv4" ? 0xffff_0000_0000n + value : value).toString(16).padStart(32, "0");

/**
 * 32 hexadecimal digits that sort as addresses do, one spelling for each; IPv4 stands among IPv6 as ::ffff:0:0/96
 * (RFC 4291, 2.5.5.2). Null when it is no address.
 */
export function addressSortKey(text: string): string | null {
  const number = numberOf(text);
  return number && sortKeyOf(number.family, number.value);
}

/** The address of a sort key, in its usual spelling. */
export function addressText(sortKey: string): string {
  const bytes = (sortKey.match(/../g) ?? []).map((pair) => parseInt(pair, 16));
  const isIpv4 = sortKey.startsWith("00000000000000000000ffff");
  return ipaddr.fromByteArray(isIpv4 ? bytes.slice(12) : bytes).toString();
}

export function parsePrefix(text: string): Prefix | null {
  const [address = "", length = "", ...rest] = text.trim().split("/");
  const number = numberOf(address);
  if (!number || rest.length > 0 || !/^\d{1,3}$/.test(length)) return null;
  return Number(length) <= bitsOf(number.family)
    ? { network: address, length: Number(length), family: number.family }
    : null;
}

const bitsOf = (family: Prefix["family"]): number => (family === "ipv4" ? 32 : 128);

/** First and last address of a prefix as numbers. */
export function boundsOf(prefix: Prefix): { first: bigint; last: bigint } {
  const size = 1n << BigInt(bitsOf(prefix.family) - prefix.length);
  const first = ((numberOf(prefix.network)?.value ?? 0n) / size) * size;
  return { first, last: first + size - 1n };
}

/** The sort keys of the first and the last address of a prefix; null when it is none. */
export function boundKeysOf(prefix: string): { first: string; last: string } | null {
  const parsed = parsePrefix(prefix);
  if (!parsed) return null;
  const { first, last } = boundsOf(parsed);
  return { first: sortKeyOf(parsed.family, first), last: sortKeyOf(parsed.family, last) };
}

export function contains(prefix: string, address: string): boolean {
  const parsed = parsePrefix(prefix);
  const number = numberOf(address);
  if (!parsed || !number || parsed.family !== number.family) return false;
  const { first, last } = boundsOf(parsed);
  return number.value >= first && number.value <= last;
}

/** "network" or "broadcast" when an IPv4 address is one of the two that no machine may have; /31 and /32 have none. */
export function edgeOf(prefix: string, address: string): "network" | "broadcast" | null {
  const parsed = parsePrefix(prefix);
  const number = numberOf(address);
  if (!parsed || !number || parsed.family !== "ipv4" || parsed.length > 30) return null;
  const { first, last } = boundsOf(parsed);
  return number.value === first ? "network" : number.value === last ? "broadcast" : null;
}

export function inRange(address: string, range: { from: string; to: string }): boolean {
  const [number, from, to] = [address, range.from, range.to].map(numberOf);
  if (!number || !from || !to || number.family !== from.family) return false;
  return number.value >= from.value && number.value <= to.value;
}

/** "10.61.10.40" with 24 bits stands in "10.61.10.0/24"; null where there is no such network. */
export function networkOf(address: string, length: number): string | null {
  if (!parsePrefix(`${address}/${length}`)) return null;
  const kind = address.includes(":") ? ipaddr.IPv6 : ipaddr.IPv4;
  return `${kind.networkAddressFromCIDR(`${address}/${length}`)}/${length}`;
}

export const prefixLengthOf = (prefix: string): number | null => parsePrefix(prefix)?.length ?? null;

/** 24 becomes 255.255.255.0, for installers that ask for a mask. */
export const netmaskOf = (length: number): string =>
  ipaddr.IPv4.subnetMaskFromPrefixLength(length).toString();

/** Domains that nobody can register: kept apart for private use by RFC 6761, RFC 6762, RFC 8375 and ICANN's .internal. */
export const isPrivateName = (domain: string): boolean =>
  /(^|\.)(internal|test|example|invalid|localhost|home\.arpa|example\.(com|net|org))$/i.test(domain);

/** Addresses that mean something at one place only: private, unique local, link local, shared, loopback (RFC 1918, 4193, 6598). */
export const isPrivateAddress = (text: string): boolean =>
  isAddress(text) &&
  ["private", "uniqueLocal", "linkLocal", "loopback", "carrierGradeNat"].includes(ipaddr.parse(text).range());

/** An IPv4 number as four decimal parts. */
export const toText = (value: bigint): string =>
  [24n, 16n, 8n, 0n].map((shift) => String((value >> shift) & 255n)).join(".");
