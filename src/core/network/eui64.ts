import ipaddr from "ipaddr.js";
import { isAddress, parsePrefix } from "./address";

const MAC = /^[\da-f]{2}([:-]?)[\da-f]{2}(\1[\da-f]{2}){4}$/i;
/** Stands in the middle of an address that was made from a MAC. */
const MARK = [0xff, 0xfe];
/** The bit that says whether a MAC was given by its maker; it is turned round (RFC 4291, appendix A). */
const LOCAL = 0x02;

const bytesOf = (mac: string): number[] | null =>
  MAC.test(mac) ? mac.match(/[\da-f]{2}/gi)!.map((b) => parseInt(b, 16)) : null;
const two = (byte: number): string => byte.toString(16).padStart(2, "0");

/** The eight bytes that a machine makes of a MAC for the second half of its address (RFC 4291, appendix A). */
function interfaceId(mac: string): number[] | null {
  const bytes = bytesOf(mac);
  return bytes && [bytes[0]! ^ LOCAL, ...bytes.slice(1, 3), ...MARK, ...bytes.slice(3)];
}

/** The interface identifier in four groups: "0225:90ff:feab:cdef"; null where it is no MAC. */
export function eui64(mac: string): string | null {
  const id = interfaceId(mac)?.map(two).join("");
  return id?.match(/.{4}/g)!.join(":") ?? null;
}

/** The address that a port with this MAC gives itself in a network of 64 bits, unless it hides its MAC (RFC 4862). */
export function slaacAddress(network: string, mac: string): string | null {
  const prefix = parsePrefix(network);
  const id = interfaceId(mac);
  if (!id || prefix?.family !== "ipv6" || prefix.length !== 64) return null;
  const half = ipaddr.IPv6.parse(prefix.network).toByteArray().slice(0, 8);
  return new ipaddr.IPv6([...half, ...id]).toRFC5952String();
}

/** The address that every port gives itself, without anybody having planned it. */
export const linkLocalAddress = (mac: string): string | null => slaacAddress("fe80::/64", mac);

/** The MAC that an address was made of; null where it does not look so. */
export function macIn(address: string): string | null {
  if (!isAddress(address) || !address.includes(":")) return null;
  const id = ipaddr.IPv6.parse(address).toByteArray().slice(8);
  if (id[3] !== MARK[0] || id[4] !== MARK[1]) return null;
  return [id[0]! ^ LOCAL, id[1]!, id[2]!, id[5]!, id[6]!, id[7]!].map(two).join(":");
}
