import { and, eq, getTableColumns, type SQL } from "drizzle-orm";
import type { SQLiteColumn, SQLiteTable, SQLiteUpdateSetSource } from "drizzle-orm/sqlite-core";
import type { z } from "zod";
import type { DocumentKind } from "@/core/document";
import type { Db, Tx } from "./client";
import { readStored, sound, toStore, type Kind, type StoredText } from "./document";

/** Where and how the documents of one kind are stored. */
export interface Kept<T extends SQLiteTable, S extends z.ZodType, Row> {
  definition: DocumentKind<Kind, S>;
  table: T;
  /** The fields of the table's rows that hold the identity and the document. */
  key: string & keyof T["$inferSelect"];
  field: string & keyof T["$inferSelect"];
  /** All columns that follow from a document, its own among them. `name` is what people call the row. */
  columns(document: z.output<S>, name: string): Record<string, unknown>;
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

/** Writing, for every kind whose rows count their saves. `more` are columns that do not follow from the document. */
export function writing<T extends CountedTable, S extends z.ZodType, Row>(kept: Kept<T, S, Row>) {
  const { definition, table, key } = kept;
  const columnsOf = (document: unknown, more: { name?: string }): Record<string, unknown> =>
    kept.columns(toStore(definition, document), more.name ?? "");
  return {
    async insert(
      tx: Tx,
      document: z.output<S>,
      at: string,
      more: { name?: string } & Record<string, unknown>,
    ): Promise<void> {
      const row = { updatedAt: at, ...columnsOf(document, more), ...more };
      await tx.insert(table).values(row as T["$inferInsert"]);
    },
    /** Saves when `version` is still the stored one; false when somebody saved in between. */
    async update(
      tx: Tx,
      value: string,
      version: number,
      document: z.output<S>,
      at: string,
      more: { name?: string } = {},
    ): Promise<boolean> {
      const set = { ...columnsOf(document, more), ...more, version: version + 1, updatedAt: at };
      const done = await tx
        .update(table)
        .set(set as SQLiteUpdateSetSource<T>)
        .where(and(eq(columnOf(table, key), value), eq(table.version, version)));
      return done.rowsAffected === 1;
    },
  };
}
