import { and, asc, eq } from "drizzle-orm";
import { siteSchema, type Site } from "@/core/site";
import type { Db, Tx } from "./client";
import { sites } from "./schema";

export interface SiteRow {
  id: string;
  version: number;
  site: Site;
}

const read = (row: typeof sites.$inferSelect): SiteRow => ({
  id: row.id,
  version: row.version,
  site: siteSchema.parse(row.document),
});

export const all = async (db: Db): Promise<SiteRow[]> =>
  (await db.select().from(sites).orderBy(asc(sites.name))).map(read);

export async function one(db: Db | Tx, id: string): Promise<SiteRow | null> {
  const row = await db.query.sites.findFirst({ where: eq(sites.id, id) });
  return row ? read(row) : null;
}

export async function insert(tx: Tx, id: string, site: Site, at: string): Promise<void> {
  await tx.insert(sites).values({ id, name: site.name, document: site, updatedAt: at });
}

/** Saves when `version` is still the stored one; false when somebody saved in between. */
export async function update(tx: Tx, id: string, version: number, site: Site, at: string): Promise<boolean> {
  const done = await tx
    .update(sites)
    .set({ name: site.name, document: site, version: version + 1, updatedAt: at })
    .where(and(eq(sites.id, id), eq(sites.version, version)));
  return done.rowsAffected === 1;
}
