import { and, asc, eq } from "drizzle-orm";
import { siteSchema, type Site } from "@/core/site";
import type { Db, Tx } from "./client";
import { readStored, sound, toStore } from "./document";
import { sites } from "./schema";

export interface SiteRow {
  id: string;
  version: number;
  site: Site;
}

const read = (row: typeof sites.$inferSelect): SiteRow => ({
  id: row.id,
  version: row.version,
  site: readStored("site", row.id, siteSchema, row.document),
});

export const all = async (db: Db | Tx): Promise<SiteRow[]> =>
  sound(await db.select().from(sites).orderBy(asc(sites.name)), read);

export async function one(db: Db | Tx, id: string): Promise<SiteRow | null> {
  const row = await db.query.sites.findFirst({ where: eq(sites.id, id) });
  return row ? read(row) : null;
}

/** For a page that is about something else and can do without: null when the site is damaged, as when it is gone. */
export const ifSound = async (db: Db | Tx, id: string): Promise<SiteRow | null> =>
  sound(await db.select().from(sites).where(eq(sites.id, id)), read)[0] ?? null;

export async function insert(tx: Tx, id: string, site: Site, at: string): Promise<void> {
  const document = toStore("site", siteSchema, site);
  await tx.insert(sites).values({ id, name: document.name, document, updatedAt: at });
}

/** Saves when `version` is still the stored one; false when somebody saved in between. */
export async function update(tx: Tx, id: string, version: number, site: Site, at: string): Promise<boolean> {
  const document = toStore("site", siteSchema, site);
  const done = await tx
    .update(sites)
    .set({ name: document.name, document, version: version + 1, updatedAt: at })
    .where(and(eq(sites.id, id), eq(sites.version, version)));
  return done.rowsAffected === 1;
}
