import { and, desc, eq } from "drizzle-orm";
import { compatNoteSchema, type CompatNote } from "@/core/compat";
import type { Db, Tx } from "./client";
import { readStored, sound, toStore } from "./document";
import { compatNotes } from "./schema";

export interface CompatRow {
  id: string;
  version: number;
  note: CompatNote;
}

const read = (row: typeof compatNotes.$inferSelect): CompatRow => ({
  id: row.id,
  version: row.version,
  note: readStored("note", row.id, compatNoteSchema, row.document),
});

const columnsOf = (note: CompatNote) => {
  const document = toStore("note", compatNoteSchema, note);
  return { profile: document.profile, document };
};

export const all = async (db: Db | Tx): Promise<CompatRow[]> =>
  sound(await db.select().from(compatNotes).orderBy(desc(compatNotes.updatedAt)), read);

export const ofProfile = async (db: Db | Tx, profile: string): Promise<CompatNote[]> =>
  sound(await db.select().from(compatNotes).where(eq(compatNotes.profile, profile)), (row) => read(row).note);

export async function one(db: Db | Tx, id: string): Promise<CompatRow | null> {
  const row = await db.query.compatNotes.findFirst({ where: eq(compatNotes.id, id) });
  return row ? read(row) : null;
}

export async function insert(tx: Tx, id: string, note: CompatNote, at: string): Promise<void> {
  await tx.insert(compatNotes).values({ id, ...columnsOf(note), updatedAt: at });
}

/** Saves when `version` is still the stored one; false when somebody saved in between. */
export async function update(
  tx: Tx,
  id: string,
  version: number,
  note: CompatNote,
  at: string,
): Promise<boolean> {
  const done = await tx
    .update(compatNotes)
    .set({ ...columnsOf(note), version: version + 1, updatedAt: at })
    .where(and(eq(compatNotes.id, id), eq(compatNotes.version, version)));
  return done.rowsAffected === 1;
}
