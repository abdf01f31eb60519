import { inArray, isNull } from "drizzle-orm";
import { driveDocument, type RegisterEntry } from "@/core/machine";
import type { Stamp } from "./changes";
import type { Db, Tx } from "./client";
import { reading, writing, type Kept } from "./documents";
import { drives } from "./schema";

export interface DriveRow {
  key: string;
  machineId: string | null;
  version: number;
  updatedAt: string;
  entry: RegisterEntry;
}

const seatOf = (entry: RegisterEntry): string | null =>
  entry.state === "in a machine" ? (entry.stays.at(-1)?.machineId ?? null) : null;

export const KEPT: Kept<typeof drives, typeof driveDocument.schema, DriveRow> = {
  ...{ definition: driveDocument, table: drives, key: "key", field: "document", called: "key" },
  columns: (document) => ({ machineId: seatOf(document), document }),
  row: ({ key, machineId, version, updatedAt }, entry) => ({ key, machineId, version, updatedAt, entry }),
};
const rows = { ...reading(KEPT), ...writing(KEPT) };
export const { one, update } = rows;

/** The whole register. */
export const all = (db: Db | Tx): Promise<DriveRow[]> => rows.some(db);

export const withKeys = async (db: Db | Tx, keys: string[]): Promise<DriveRow[]> =>
  keys.length === 0 ? [] : rows.some(db, inArray(drives.key, keys));

const onShelf = (db: Db | Tx): Promise<DriveRow[]> => rows.some(db, isNull(drives.machineId));

/** Sticks and cards that can be carried to a machine: by media, and not sitting in one. */
export const portable = async (db: Db | Tx): Promise<DriveRow[]> =>
  (await onShelf(db)).filter((r) => r.entry.media === "usb" && r.entry.state !== "destroyed");

/** Spares on the shelf. */
export const spares = async (db: Db | Tx): Promise<DriveRow[]> =>
  (await onShelf(db)).filter((r) => r.entry.spare);

/** Writes an entry, new or known, over `old`: the row that was read in the same transaction; null where there was none. */
export const put = async (
  tx: Tx,
  key: string,
  entry: RegisterEntry,
  old: Pick<DriveRow, "version"> | null,
  stamp: Stamp,
): Promise<void> => {
  if (old) await rows.update(tx, key, old.version, entry, stamp);
  else await rows.insert(tx, entry, stamp, { id: key, key });
};
