import { addressKey, addressSortKey, isPrivateAddress } from "./address";
import type { NetworkGround } from "./ground";
import type { Segment } from "./segment";

/** Who else has an address: other machines and sheets, things of the site, the segment's own, and reservations for other MACs. */
export function ownersOf(
  { rivals, site, sheet }: NetworkGround,
  address: string,
  segment: Segment | null,
): string[] {
  const key = addressKey(address);
  if (!key) return [];
  const isIt = (other: string): boolean => addressKey(other) === key;
  return [
    ...new Set([
      // The same private address at another site is another address.
      ...rivals
        .filter((r) => r.kind === "address" && r.key === addressSortKey(key))
        .filter((r) => r.here || !isPrivateAddress(key))
        .map((r) => r.owner),
      ...(site?.devices ?? []).filter((d) => isIt(d.address)).map((d) => d.name),
      ...(segment && isIt(segment.gateway ?? "") ? ["the gateway"] : []),
      ...((segment?.nameServers ?? []).some(isIt) ? ["DNS server"] : []),
      ...(segment?.reservations ?? [])
        .filter((r) => isIt(r.address) && r.mac.toLowerCase() !== sheet.network.port)
        .map((r) => `the reservation for ${r.name}`),
    ]),
  ];
}
