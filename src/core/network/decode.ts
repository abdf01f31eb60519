import { addressSortKey, contains, inRange, isAddress } from "./address";
import { ADDRESS_KINDS, addressKind, type AddressKind } from "./address-kind";
import { macIn } from "./eui64";
import type { Segment } from "./segment";
import { segmentPlan, type SegmentStretch } from "./segment-plan";

/** A network that an address may be of, with who has which of its addresses, by their sort keys. */
export interface AddressPlace {
  site: string;
  siteId: string;
  segment: Segment;
  taken: ReadonlyMap<string, string>;
}

/** An address seen on a console or in a log, explained. */
export interface DecodedAddress {
  address: string;
  kind: AddressKind;
  /** What kind it is, where it comes from, and whether anybody planned it; one sentence each. */
  says: string[];
  /** The site that it belongs to, where one is known. */
  siteId: string | null;
}

const USES: Readonly<Record<SegmentStretch["use"], (what: string) => string>> = {
  edge: (what) => `the ${what} address, not usable by a machine.`,
  gateway: () => "planned, the gateway.",
  pool: () => "in a DHCP range, so it can be assigned to any machine.",
  reserved: (what) => `planned, DHCP reservation for ${what}.`,
  taken: (what) => `planned, ${what}.`,
  free: () => "not in use by any plan.",
};

/** An address as it stands on a screen, without the prefix length or the port name behind it; null where there is none. */
export function readAddress(text: string): string | null {
  const address = text
    .trim()
    .replace(/%[\w.-]+$/, "")
    .replace(/\/\d{1,3}$/, "");
  return isAddress(address) ? address : null;
}

/** What an address is used for in a network. */
function useOf(address: string, { segment, taken }: AddressPlace): string {
  const key = addressSortKey(address)!;
  const stretch = segmentPlan(segment, taken).find(
    (s) => addressSortKey(s.from)! <= key && key <= addressSortKey(s.to)!,
  );
  const isLent = segment.dhcp.some((range) => inRange(address, range));
  if (stretch?.use === "taken" && isLent) return `planned, ${stretch.what}, but inside a DHCP range.`;
  if (stretch) return USES[stretch.use](stretch.what);
  // An IPv6 network, or a huge one, has no plan of stretches.
  if (segment.gateway !== null && addressSortKey(segment.gateway) === key) return USES.gateway("");
  const who = taken.get(key) ?? segment.reservations.find((r) => addressSortKey(r.address) === key)?.name;
  return who === undefined ? USES.free("") : USES.taken(who);
}

/**
 * Explains an address. `places` are the networks of all sites, `portOf` says which port has a MAC. Null when the text is no
 * address.
 */
export function decodeAddress(
  text: string,
  places: readonly AddressPlace[],
  portOf: (mac: string) => string | null,
): DecodedAddress | null {
  const address = readAddress(text);
  const kind = address && addressKind(address);
  if (!address || !kind) return null;
  const mac = macIn(address);
  const made = mac && `Derived from the MAC ${mac}, ${portOf(mac) ?? "which belongs to no known machine"}.`;
  const own = places.filter((p) => contains(p.segment.prefix, address));
  const isOfSites = kind === "private" || kind === "unique local" || kind === "public";
  return {
    address,
    kind,
    says: [
      `Type: ${ADDRESS_KINDS[kind]}.`,
      ...(made ? [made] : []),
      ...own.map((p) => `${p.site}, ${p.segment.name} (${p.segment.prefix}): ${useOf(address, p)}`),
      ...(own.length === 0 && isOfSites ? ["It is in no network of any site."] : []),
    ],
    siteId: own[0]?.siteId ?? null,
  };
}
