import { segmentPlan, type SegmentStretch } from "@/core/network";
import { emptySite, siteSchema, type Site } from "@/core/site";
import { buildRows, machineRows, siteRows } from "@/db";
import { no, STALE, yes, type Answer } from "./answer";
import { database, now } from "./database";
import { newId } from "./ids";

export interface SiteView {
  id: string;
  version: number;
  site: Site;
  machines: { id: string; name: string }[];
  plans: { segment: string; stretches: SegmentStretch[] }[];
}

export async function listSites() {
  const { db } = await database();
  const [sites, marks] = await Promise.all([siteRows.all(db), machineRows.marks(db)]);
  return sites.map((s) => ({ ...s, machines: marks.filter((m) => m.siteId === s.id).length }));
}

/** Every address that a machine, a build or a thing of the site has, with who has it; other sites have their own. */
export function takenAddresses(
  site: Site,
  siteId: string | null,
  all: machineRows.MachineMark[],
  builds: buildRows.BuildMark[],
): Map<string, string> {
  const machines = all.filter((m) => m.siteId === siteId);
  const here = new Set(machines.map((m) => m.id));
  return new Map([
    ...site.occupied.map((o) => [o.address, o.what] as const),
    ...builds
      .filter((b) => b.address && b.machineId !== null && here.has(b.machineId))
      .map((b) => [b.address, `${b.hostName || b.number} (${b.number})`] as const),
    ...machines.flatMap((m) => m.addresses.map((a) => [a, m.name] as const)),
  ]);
}

export async function siteView(id: string): Promise<SiteView | null> {
  const { db } = await database();
  const row = await siteRows.one(db, id);
  if (!row) return null;
  const [marks, builds] = await Promise.all([machineRows.marks(db), buildRows.marks(db)]);
  const taken = takenAddresses(row.site, id, marks, builds);
  return {
    ...row,
    machines: marks.filter((m) => m.siteId === id).map(({ id: machine, name }) => ({ id: machine, name })),
    plans: row.site.segments.map((segment) => ({
      segment: segment.id,
      stretches: segmentPlan(segment, taken),
    })),
  };
}

export async function createSite(name: string): Promise<Answer<string>> {
  const site = siteSchema.safeParse({ ...emptySite("x"), name });
  if (!site.success) return no("A site needs a name, for example the building or the town.");
  const id = newId("s");
  await (await database()).write((tx) => siteRows.insert(tx, id, site.data, now()));
  return yes(id);
}

export async function saveSite(id: string, version: number, document: unknown): Promise<Answer<number>> {
  const site = siteSchema.safeParse(document);
  if (!site.success)
    return {
      ok: false,
      problems: site.error.issues.map((i) => ({ message: `${i.path.join(" ")}: ${i.message}` })),
    };
  const saved = await (await database()).write((tx) => siteRows.update(tx, id, version, site.data, now()));
  return saved ? yes(version + 1) : no(STALE);
}
