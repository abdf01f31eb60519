import { addressClaim } from "@/core/claims";
import { boundKeysOf, segmentPlan, type SegmentStretch } from "@/core/network";
import { emptyMachine, mergeReadings, readTexts, type NamedText } from "@/core/machine";
import { proposedSite, siteSchema, type Site } from "@/core/site";
import { claimRows, machineRows, siteRows, type Db } from "@/db";
import { no, yes, type Answer } from "./answer";
import type { Desk } from "./desk";

export interface SiteView {
  id: string;
  version: number;
  site: Site;
  machines: { id: string; name: string }[];
  plans: { segment: string; stretches: SegmentStretch[] }[];
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
    ...site.occupied.flatMap((o) => addressClaim(o.address).map(({ key }) => [key, o.what] as const)),
    ...claimed,
  ]);
}

export async function siteView(desk: Desk, id: string): Promise<SiteView | null> {
  const { db } = desk;
  const row = await siteRows.one(db, id);
  if (!row) return null;
  const { site } = row;
  return {
    ...row,
    machines: await machineRows.named(db, id),
    plans: await Promise.all(
      site.segments.map(async (segment) => ({
        segment: segment.id,
        stretches: segmentPlan(segment, await takenAddresses(db, site, id, segment.prefix)),
      })),
    ),
  };
}

/** A new site, as the first machine of it was found there; without what its tools printed it is empty. */
export async function createSite(
  desk: Desk,
  name: string,
  texts: readonly NamedText[] = [],
): Promise<Answer<string>> {
  const { document } = mergeReadings(emptyMachine(), readTexts(texts).readings, desk.now());
  const site = siteSchema.safeParse({ ...proposedSite("x", document.facts), name });
  if (!site.success) return no("A site needs a name, for example the building or the town.");
  const id = desk.newId("s");
  await desk.write((tx) => siteRows.insert(tx, id, site.data, desk.stamp()));
  return yes(id);
}
