import { asc, eq } from "drizzle-orm";
import * as changeRows from "./changes";
import type { Stamp } from "./changes";
import type { Db, Tx } from "./client";
import { pictures } from "./schema";

export type PictureRow = typeof pictures.$inferSelect;

/** Pictures of a machine without their bytes. */
export const of = async (
  db: Db | Tx,
  machineId: string,
): Promise<Omit<PictureRow, "bytes" | "machineId">[]> =>
  db
    .select({
      id: pictures.id,
      at: pictures.at,
      by: pictures.by,
      caption: pictures.caption,
      type: pictures.type,
    })
    .from(pictures)
    .where(eq(pictures.machineId, machineId))
    .orderBy(asc(pictures.at));

export const one = async (db: Db | Tx, id: string): Promise<PictureRow | null> =>
  (await db.query.pictures.findFirst({ where: eq(pictures.id, id) })) ?? null;

/** Ids of all pictures; bytes are read one picture at a time. */
export const ids = async (db: Db | Tx): Promise<string[]> =>
  (await db.select({ id: pictures.id }).from(pictures).orderBy(asc(pictures.id))).map((r) => r.id);

export async function insert(tx: Tx, row: PictureRow): Promise<void> {
  await tx.insert(pictures).values(row);
  await changeRows.add(tx, "picture", row.machineId, 1, row);
}

export async function remove(tx: Tx, id: string, stamp: Stamp): Promise<void> {
  const [gone] = await tx.delete(pictures).where(eq(pictures.id, id)).returning({ of: pictures.machineId });
  if (gone) await changeRows.add(tx, "picture", gone.of, 0, stamp);
}
