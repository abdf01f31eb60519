import { and, eq, getTableColumns, type SQL } from "drizzle-orm";
import type { SQLiteColumn, SQLiteTable, SQLiteUpdateSetSource } from "drizzle-orm/sqlite-core";
import type { z } from "zod";
import type { Claim } from "@/core/claims";
import { diffDocuments, type DocumentKind } from "@/core/document";
import * as changeRows from "./changes";
import type { Stamp } from "./changes";
import * as claimRows from "./claims";
import type { Db, Tx } from "./client";
import { jsonOf, readStored, sound, toStore, type Kind, type StoredText } from "./document";

/** Where and how the documents of one kind are stored. */
export interface Kept<T extends SQLiteTable, S extends z.ZodType, Row> {
  definition: DocumentKind<Kind, S>;
  table: T;
  /** The fields of the table's rows that hold the identity and the document. */
  key: string & keyof T["$inferSelect"];
  field: string & keyof T["$inferSelect"];
  /** The field by which people call the row. */
  called: string & keyof T["$inferSelect"];
  /** All columns that follow from a document, its own among them. */
  columns(document: z.output<S>): Record<string, unknown>;
  /** What the document claims in the world; kept beside it in the same transaction. */
  claims?(document: z.output<S>, name: string): Claim[];
  /** A row as the rest of Derrick knows it. */
  row(columns: T["$inferSelect"], document: z.output<S>): Row;
}

export const columnOf = (table: SQLiteTable, field: string): SQLiteColumn => getTableColumns(table)[field]!;

/** Reading, for every kind of document: one, or some; lists leave out what is damaged. */
export function reading<T extends SQLiteTable, S extends z.ZodType, Row>(kept: Kept<T, S, Row>) {
  const { definition, table, key, field } = kept;
  const id = columnOf(table, key);
  const read = (columns: T["$inferSelect"]): Row =>
    kept.row(columns, readStored(definition, String(columns[key]), columns[field] as StoredText));
  const rows = async (db: Db | Tx, where?: SQL, order: SQL[] = [], most = -1) =>
    (await db
      .select()
      .from(table)
      .where(where)
      .orderBy(...order)
      .limit(most)) as T["$inferSelect"][];
  return {
    /** Null when there is none; a damaged one throws. */
    async one(db: Db | Tx, value: string): Promise<Row | null> {
      const [found] = await rows(db, eq(id, value), [], 1);
      return found ? read(found) : null;
    },
    /** For a page that is about something else: null when it is damaged, as when it is gone. */
    async ifSound(db: Db | Tx, value: string): Promise<Row | null> {
      return sound(await rows(db, eq(id, value)), read)[0] ?? null;
    },
    async some(db: Db | Tx, where?: SQL, order?: SQL[], most?: number): Promise<Row[]> {
      return sound(await rows(db, where, order, most), read);
    },
  };
}

type CountedTable = SQLiteTable & { version: SQLiteColumn; updatedAt: SQLiteColumn };

/** Writes what a document claims, for one that was saved or whose projections are made anew. */
export async function putClaims<T extends SQLiteTable, S extends z.ZodType, Row>(
  tx: Tx,
  { definition, claims }: Kept<T, S, Row>,
  id: string,
  document: z.output<S>,
  name: string,
): Promise<void> {
  if (claims) await claimRows.put(tx, definition.kind, id, claims(document, name));
}

/** Writing, for every kind whose rows count their saves. `more` are columns that do not follow from the document. */
export function writing<T extends CountedTable, S extends z.ZodType, Row>(kept: Kept<T, S, Row>) {
  const { definition, table, key } = kept;
  return {
    async insert(
      tx: Tx,
      given: z.output<S>,
      stamp: Stamp,
      more: { id: string; version?: number } & Record<string, unknown>,
    ): Promise<void> {
      const document = toStore(definition, given);
      const row = { updatedAt: stamp.at, ...kept.columns(document), ...more };
      await tx.insert(table).values(row as T["$inferInsert"]);
      const { [kept.called]: name } = row as Record<string, unknown>;
      if (kept.claims) await claimRows.add(tx, definition.kind, more.id, kept.claims(document, String(name)));
      await changeRows.add(tx, definition.kind, more.id, more.version ?? 1, stamp, []);
    },
    /** Saves when `version` is still the stored one; false when somebody saved in between. */
    async update(
      tx: Tx,
      id: string,
      version: number,
      given: z.output<S>,
      stamp: Stamp,
      more: Record<string, unknown> = {},
    ): Promise<boolean> {
      const document = toStore(definition, given);
      const stands = and(eq(columnOf(table, key), id), eq(table.version, version));
      const [old] = await tx
        .select({ text: columnOf(table, kept.field) })
        .from(table)
        .where(stands);
      if (!old) return false;
      const set = { ...kept.columns(document), ...more, version: version + 1, updatedAt: stamp.at };
      const [saved] = await tx
        .update(table)
        .set(set as SQLiteUpdateSetSource<T>)
        .where(stands)
        .returning({ name: columnOf(table, kept.called) });
      if (!saved) return false;
      await putClaims(tx, kept, id, document, String(saved.name));
      const edits = diffDocuments(jsonOf(old.text as StoredText), document);
      await changeRows.add(tx, definition.kind, id, version + 1, stamp, edits);
      return true;
    },
  };
}
