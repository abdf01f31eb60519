import { addressClaim, distinct, type Claim } from "../claims";
import { addressSortKey, boundKeysOf, endKey, parsePrefix } from "../network";
import type { Site } from "./site";

/** The parts of a key are parted by one blank; the last of them may have blanks of its own. */
const key = (...parts: (string | number)[]): string => parts.join(" ");

const vlanKey = (vlan: number): string => String(vlan).padStart(4, "0");

/** What a site claims of its networks: what its own check reads, without the document. */
export function siteClaims(site: Site): Claim[] {
  const of = (kind: Claim["kind"], ...keys: string[]): Claim[] => keys.map((k) => ({ kind, key: k }));
  const segments = site.segments.flatMap((s) => {
    const bounds = boundKeysOf(s.prefix);
    const family = parsePrefix(s.prefix)?.family ?? "ipv4";
    return [
      ...(bounds ? of("prefix", key(bounds.first, bounds.last, s.name)) : []),
      ...(s.vlan === null ? [] : of("vlan", key(vlanKey(s.vlan), family, s.name))),
      ...s.dhcp.flatMap(({ from, to }) => {
        const [first, last] = [addressSortKey(from), addressSortKey(to)];
        return first && last ? of("range", key(first, last, s.name)) : [];
      }),
      ...s.reservations.flatMap((r) => {
        const at = addressSortKey(r.address);
        return at ? of("reservation", key(at, r.mac.toLowerCase(), r.name)) : [];
      }),
    ];
  });
  const devices = site.devices.flatMap((d) => [
    ...addressClaim(d.address).map(({ key: at }): Claim => ({ kind: "thing", key: key(at, d.name) })),
    ...(d.logIn === "default" ? of("default log-in", d.name) : []),
  ]);
  const names = new Map(site.devices.map((d) => [d.id, d]));
  const ends = site.cables.flatMap((c) =>
    [c.a, c.b].flatMap((end) => {
      const device = "device" in end ? names.get(end.device) : undefined;
      // A patch panel has two sides: two cables in one of its ports are as it should be.
      if ("device" in end && (!device || device.kind === "patch panel")) return [];
      const words = "device" in end ? `${device!.name} port ${end.port}` : end.mac;
      return of("switch port", `${endKey(end).replaceAll(" ", "/")} ${c.id} ${words}`);
    }),
  );
  return distinct([...segments, ...devices, ...ends]);
}
