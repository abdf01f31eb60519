import { macClaim } from "@/core/claims";
import { contains, decodeAddress, macIn, readAddress, type DecodedAddress } from "@/core/network";
import { claimRows, siteRows } from "@/db";
import type { Desk } from "./desk";
import { takenAddresses } from "./sites";

/** Which machine has a port with this MAC, in words; null where none has told of it. */
async function portWords({ db }: Desk, mac: string): Promise<string | null> {
  const held = await claimRows.holders(db, [macClaim(mac)]);
  const machine = held.find((h) => h.owner === "machine")?.machine ?? null;
  return machine && `of a port of ${machine}`;
}

/** Explains an address that somebody has seen: its kind, where it comes from, and whether it is planned; null where it is none. */
export async function explainAddress(desk: Desk, text: string): Promise<DecodedAddress | null> {
  const { db } = desk;
  const address = readAddress(text);
  if (address === null) return null;
  const mac = macIn(address);
  const [sites, port] = await Promise.all([siteRows.all(db), mac ? portWords(desk, mac) : null]);
  const places = await Promise.all(
    sites.flatMap(({ id, site }) =>
      site.segments
        .filter((s) => contains(s.prefix, address))
        .map(async (segment) => ({
          ...{ site: site.name, siteId: id, segment },
          taken: await takenAddresses(db, site, id, segment.prefix),
        })),
    ),
  );
  return decodeAddress(address, places, () => port);
}
