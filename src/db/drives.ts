import { and, eq, inArray, isNull } from "drizzle-orm";
import { registerEntrySchema, type RegisterEntry } from "@/core/machine";
import type { Db, Tx } from "./client";
import { readStored, sound, toStore } from "./document";
import { drives } from "./schema";

export interface DriveRow {
  key: string;
  machineId: string | null;
  version: number;
  updatedAt: string;
  entry: RegisterEntry;
}

const read = (row: typeof drives.$inferSelect): DriveRow => ({
  key: row.key,
  machineId: row.machineId,
  version: row.version,
  updatedAt: row.updatedAt,
  entry: readStored("drive", row.key, registerEntrySchema, row.document),
});

/** The whole register. */
export const all = async (db: Db | Tx): Promise<DriveRow[]> => sound(await db.select().from(drives), read);

export async function one(db: Db | Tx, key: string): Promise<DriveRow | null> {
  const row = await db.query.drives.findFirst({ where: eq(drives.key, key) });
  return row ? read(row) : null;
}

export const withKeys = async (db: Db | Tx, keys: string[]): Promise<DriveRow[]> =>
  keys.length === 0 ? [] : sound(await db.select().from(drives).where(inArray(drives.key, keys)), read);

/** Sticks and cards that can be carried to a machine: by media, and not sitting in one. */
export const portable = async (db: Db | Tx): Promise<DriveRow[]> =>
  sound(await db.select().from(drives).where(isNull(drives.machineId)), read).filter(
    (r) => r.entry.media === "usb" && r.entry.state !== "destroyed",
  );

/** Spares on the shelf. */
export const spares = async (db: Db | Tx): Promise<DriveRow[]> =>
  sound(await db.select().from(drives).where(isNull(drives.machineId)), read).filter((r) => r.entry.spare);

const seatOf = (entry: RegisterEntry): string | null =>
  entry.state === "in a machine" ? (entry.stays.at(-1)?.machineId ?? null) : null;

const columnsOf = (entry: RegisterEntry) => {
  const document = toStore("drive", registerEntrySchema, entry);
  return { machineId: seatOf(document), document };
};

/** Writes an entry, new or known; what is written here is what was just read in the same transaction. */
export async function put(
  tx: Tx,
  key: string,
  entry: RegisterEntry,
  version: number,
  at: string,
): Promise<void> {
  const values = { ...columnsOf(entry), version, updatedAt: at };
  await tx
    .insert(drives)
    .values({ key, ...values })
    .onConflictDoUpdate({ target: drives.key, set: values });
}

/** Saves a change made by hand when `version` is still the stored one; false when somebody saved in between. */
export async function update(
  tx: Tx,
  key: string,
  version: number,
  entry: RegisterEntry,
  at: string,
): Promise<boolean> {
  const done = await tx
    .update(drives)
    .set({ ...columnsOf(entry), version: version + 1, updatedAt: at })
    .where(and(eq(drives.key, key), eq(drives.version, version)));
  return done.rowsAffected === 1;
}
