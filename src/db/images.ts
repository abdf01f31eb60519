import { and, asc, desc, eq } from "drizzle-orm";
import { imageSchema, type Image } from "@/core/image";
import type { Db, Tx } from "./client";
import { images, profiles } from "./schema";

export interface ImageRow {
  id: string;
  version: number;
  image: Image;
}

export type ProfileRow = typeof profiles.$inferSelect;

const read = (row: typeof images.$inferSelect): ImageRow => ({
  id: row.id,
  version: row.version,
  image: imageSchema.parse(row.document),
});

export const all = async (db: Db): Promise<ImageRow[]> =>
  (await db.select().from(images).orderBy(asc(images.name))).map(read);

export async function one(db: Db | Tx, id: string): Promise<ImageRow | null> {
  const row = await db.query.images.findFirst({ where: eq(images.id, id) });
  return row ? read(row) : null;
}

export async function insert(tx: Tx, id: string, image: Image, at: string): Promise<void> {
  await tx
    .insert(images)
    .values({ id, name: image.name, profile: image.profile, document: image, updatedAt: at });
}

/** Saves when `version` is still the stored one; false when somebody saved in between. */
export async function update(
  tx: Tx,
  id: string,
  version: number,
  image: Image,
  at: string,
): Promise<boolean> {
  const done = await tx
    .update(images)
    .set({ name: image.name, profile: image.profile, document: image, version: version + 1, updatedAt: at })
    .where(and(eq(images.id, id), eq(images.version, version)));
  return done.rowsAffected === 1;
}

export const allProfiles = (db: Db): Promise<ProfileRow[]> =>
  db.select().from(profiles).orderBy(asc(profiles.name), desc(profiles.version));

export async function putProfile(tx: Tx, row: ProfileRow, replace: boolean): Promise<void> {
  const insertion = tx.insert(profiles).values(row);
  await (replace
    ? insertion.onConflictDoUpdate({
        target: [profiles.key, profiles.version],
        set: { yaml: row.yaml, name: row.name, updatedAt: row.updatedAt },
      })
    : insertion.onConflictDoNothing());
}

export async function profileRow(db: Db, key: string, version: string): Promise<ProfileRow | null> {
  return (
    (await db.query.profiles.findFirst({
      where: and(eq(profiles.key, key), eq(profiles.version, version)),
    })) ?? null
  );
}
