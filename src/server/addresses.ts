import { macClaim } from "@/core/claims";
import { contains, decodeAddress, macIn, readAddress, type DecodedAddress } from "@/core/network";
import { claimRows, siteRows } from "@/db";
import type { Desk } from "./desk";
import { takenAddresses } from "./sites";

/** What an address is, and the machine of whose MAC it was made. */
export interface ExplainedAddress extends DecodedAddress {
  machine: { id: string; name: string } | null;
}

/** The machine that has a port with this MAC; null where none has told of it. */
async function machineOf({ db }: Desk, mac: string): Promise<ExplainedAddress["machine"]> {
  const held = await claimRows.holders(db, [macClaim(mac)]);
  const own = held.find((h) => h.owner === "machine");
  return own?.machineId && own.machine ? { id: own.machineId, name: own.machine } : null;
}

/** Explains an address that somebody has seen: its kind, where it comes from, and whether it is planned; null where it is none. */
export async function explainAddress(desk: Desk, text: string): Promise<ExplainedAddress | null> {
  const { db } = desk;
  const address = readAddress(text);
  if (address === null) return null;
  const mac = macIn(address);
  const [sites, machine] = await Promise.all([siteRows.all(db), mac ? machineOf(desk, mac) : null]);
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
  const decoded = decodeAddress(address, places, () => machine && `a port of ${machine.name}`);
  return decoded && { ...decoded, machine };
}
