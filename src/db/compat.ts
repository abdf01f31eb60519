import { desc } from "drizzle-orm";
import { noteDocument, type CompatNote } from "@/core/compat";
import type { Stamp } from "./changes";
import type { Db, Tx } from "./client";
import { reading, writing, type Kept } from "./documents";
import { compatNotes } from "./schema";

export interface CompatRow {
  id: string;
  version: number;
  note: CompatNote;
}

export const KEPT: Kept<typeof compatNotes, typeof noteDocument.schema, CompatRow> = {
  ...{ definition: noteDocument, table: compatNotes, key: "id", field: "document", called: "profile" },
  columns: (document) => ({ profile: document.profile, document }),
  row: ({ id, version }, note) => ({ id, version, note }),
};
const rows = { ...reading(KEPT), ...writing(KEPT) };
export const { one, update } = rows;

export const all = (db: Db | Tx): Promise<CompatRow[]> =>
  rows.some(db, undefined, [desc(compatNotes.updatedAt)]);

export const insert = (tx: Tx, id: string, note: CompatNote, stamp: Stamp): Promise<void> =>
  rows.insert(tx, note, stamp, { id });
