import type { Answer } from "@/contract";
import { addressClaim } from "@/core/claims";
import type { PlacedFinding } from "@/core/finding";
import { boundKeysOf } from "@/core/network";
import { emptyMachine, type NamedText } from "@/core/machine";
import { proposedSite, siteSchema, type Site } from "@/core/site";
import { claimRows, machineRows, siteRows, type Db } from "@/db";
import { no, yes } from "./answer";
import type { Desk } from "./desk";
import { readInto } from "./intake";
import { siteCheck } from "./site-check";

export interface SiteView {
  id: string;
  version: number;
  site: Site;
  machines: { id: string; name: string }[];
  /** Machines and sheets that have addresses here; `key` sorts as addresses do. */
  takers: { key: string; what: string; href: string | null }[];
  findings: PlacedFinding[];
  /** Doors from outside, by the sheets that open them; `until` is 9999-12-31 where no day is told. */
  doors: { until: string; service: string; what: string; href: string }[];
}

/** The time zone that all sites have in common; "UTC" where they have several, or where the database does not answer. */
export async function homeZone({ db }: Desk): Promise<string> {
  const zones = await siteRows.timeZones(db).catch(() => []);
  return zones.length === 1 ? zones[0]! : "UTC";
}

export async function listSites(desk: Desk) {
  const { db } = desk;
  const [sites, machines] = await Promise.all([siteRows.all(db), machineRows.countBySite(db)]);
  return sites.map((s) => ({ ...s, machines: machines.get(s.id) ?? 0 }));
}

/** Every address in a prefix that a machine, a build or a thing of the site has, with who has it; other sites have their own. */
export async function takenAddresses(
  db: Db,
  site: Site,
  siteId: string,
  prefix: string,
): Promise<Map<string, string>> {
  const range = boundKeysOf(prefix);
  const claimed = range ? await claimRows.addressesAt(db, siteId, range) : [];
  return new Map([
    ...site.devices.flatMap((d) => addressClaim(d.address).map(({ key }) => [key, d.name] as const)),
    ...claimed,
  ]);
}

export async function siteView(desk: Desk, id: string): Promise<SiteView | null> {
  const { db } = desk;
  const row = await siteRows.one(db, id);
  if (!row) return null;
  const [machines, takers, findings, doors] = await Promise.all([
    machineRows.named(db, id),
    claimRows.takersAt(db, id),
    siteCheck(desk, id),
    claimRows.doorsAt(db, id),
  ]);
  return { ...row, machines, takers, findings, doors };
}

/** A site with the ports of its machines, to which its cables go. */
export async function wiringView(desk: Desk, id: string) {
  const { db } = desk;
  const row = await siteRows.one(db, id);
  if (!row) return null;
  const [machines, findings] = await Promise.all([machineRows.portsAt(db, id), siteCheck(desk, id)]);
  return { site: row.site, machines, findings };
}

/** A new site, as the first machine of it was found there; without what its tools printed it is empty. */
export async function createSite(
  desk: Desk,
  name: string,
  texts: readonly NamedText[] = [],
): Promise<Answer<string>> {
  const read = await readInto(desk, emptyMachine(), texts, desk.now());
  if (!read.ok) return read;
  const { document } = read.value;
  const site = siteSchema.safeParse({ ...proposedSite("x", document.facts), name });
  if (!site.success) return no("A site needs a name, for example the building or the town.");
  const id = desk.newId("s");
  await desk.write((tx) => siteRows.insert(tx, id, site.data, desk.stamp()));
  return yes(id);
}
