import { and, asc, eq } from "drizzle-orm";
import { imageSchema, type Image } from "@/core/image";
import type { Db, Tx } from "./client";
import { readStored, sound, toStore } from "./document";
import { images } from "./schema";

export interface ImageRow {
  id: string;
  version: number;
  image: Image;
}

const read = (row: typeof images.$inferSelect): ImageRow => ({
  id: row.id,
  version: row.version,
  image: readStored("image", row.id, imageSchema, row.document),
});

const columnsOf = (image: Image) => {
  const document = toStore("image", imageSchema, image);
  return { name: document.name, profile: document.profile, document };
};

export const all = async (db: Db | Tx): Promise<ImageRow[]> =>
  sound(await db.select().from(images).orderBy(asc(images.name)), read);

export async function one(db: Db | Tx, id: string): Promise<ImageRow | null> {
  const row = await db.query.images.findFirst({ where: eq(images.id, id) });
  return row ? read(row) : null;
}

export async function insert(tx: Tx, id: string, image: Image, at: string): Promise<void> {
  await tx.insert(images).values({ id, ...columnsOf(image), updatedAt: at });
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
    .set({ ...columnsOf(image), version: version + 1, updatedAt: at })
    .where(and(eq(images.id, id), eq(images.version, version)));
  return done.rowsAffected === 1;
}
