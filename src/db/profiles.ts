import { and, asc, desc, eq } from "drizzle-orm";
import * as changeRows from "./changes";
import type { Db, Tx } from "./client";
import { profiles } from "./schema";

export type ProfileRow = typeof profiles.$inferSelect;

/** Every edition, by key and version, the newest edition of each first. */
export const all = (db: Db | Tx): Promise<ProfileRow[]> =>
  db.select().from(profiles).orderBy(asc(profiles.key), desc(profiles.version), desc(profiles.edition));

/** The newest edition of each profile, out of rows in the order of `all`. */
export const firstOfEach = (rows: readonly ProfileRow[]): ProfileRow[] =>
  rows.filter((r, i) => rows[i - 1]?.key !== r.key || rows[i - 1]?.version !== r.version);

export const newest = async (db: Db | Tx): Promise<ProfileRow[]> => firstOfEach(await all(db));

/** The editions of one profile, newest first. */
export const editions = (db: Db | Tx, key: string, version: string): Promise<ProfileRow[]> =>
  db
    .select()
    .from(profiles)
    .where(and(eq(profiles.key, key), eq(profiles.version, version)))
    .orderBy(desc(profiles.edition));

/** Adds an edition; what is there is never changed. */
export async function add(tx: Tx, row: ProfileRow): Promise<void> {
  await tx.insert(profiles).values(row);
  const { key, version, edition, updatedAt: at, by } = row;
  await changeRows.add(tx, "profile", `${key} ${version}`, edition, { at, by });
}

/** Empties the table, for an installation that is read in as a whole. */
export async function clear(tx: Tx): Promise<void> {
  await tx.delete(profiles);
}
