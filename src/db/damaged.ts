import { and, eq, getTableColumns, sql, type SQL } from "drizzle-orm";
import type { SQLiteColumn, SQLiteTable } from "drizzle-orm/sqlite-core";
import type { z } from "zod";
import { sheetSchema } from "@/core/build";
import { compatNoteSchema } from "@/core/compat";
import { imageSchema } from "@/core/image";
import { machineDocumentSchema, registerEntrySchema } from "@/core/machine";
import { runPlanSchema } from "@/core/run";
import { siteSchema } from "@/core/site";
import { columnsOf as buildColumns } from "./builds";
import type { Db, Tx } from "./client";
import { BrokenJson, countDamaged, DamagedError, readStored, toStore, type Kind } from "./document";
import { columnsOf as machineColumns } from "./machines";
import { builds, compatNotes, drives, images, machines, runs, setAside, sites } from "./schema";

interface Kept {
  table: SQLiteTable;
  id: SQLiteColumn;
  document: SQLiteColumn;
  /** What people call the row. */
  name: SQLiteColumn;
  schema: z.ZodType;
  /** The columns that follow from a document, for a repair. */
  columns(document: never, name: string): Record<string, unknown>;
}

/** Every kind of row that holds a document, in the order in which one may refer to another. */
export const KEPT: Record<Kind, Kept> = {
  site: {
    ...{ table: sites, id: sites.id, document: sites.document, name: sites.name, schema: siteSchema },
    columns: (document: z.output<typeof siteSchema>) => ({ name: document.name, document }),
  },
  machine: {
    ...{ table: machines, id: machines.id, document: machines.document, name: machines.name },
    schema: machineDocumentSchema,
    columns: (document: z.output<typeof machineDocumentSchema>, name) => machineColumns(name, document),
  },
  image: {
    ...{ table: images, id: images.id, document: images.document, name: images.name, schema: imageSchema },
    columns: (document: z.output<typeof imageSchema>) => ({
      name: document.name,
      profile: document.profile,
      document,
    }),
  },
  build: {
    ...{ table: builds, id: builds.id, document: builds.sheet, name: builds.number, schema: sheetSchema },
    columns: (document: z.output<typeof sheetSchema>) => buildColumns(document),
  },
  run: {
    ...{ table: runs, id: runs.id, document: runs.plan, name: runs.startedAt, schema: runPlanSchema },
    columns: (plan: z.output<typeof runPlanSchema>) => ({ plan }),
  },
  drive: {
    ...{ table: drives, id: drives.key, document: drives.document, name: drives.key },
    schema: registerEntrySchema,
    columns: (document: z.output<typeof registerEntrySchema>) => ({ document }),
  },
  note: {
    ...{ table: compatNotes, id: compatNotes.id, document: compatNotes.document, name: compatNotes.profile },
    schema: compatNoteSchema,
    columns: (document: z.output<typeof compatNoteSchema>) => ({ profile: document.profile, document }),
  },
};

export const KINDS = Object.keys(KEPT) as Kind[];

export interface Damaged {
  kind: Kind;
  id: string;
  name: string;
  problems: string[];
  /** The document as it stands in the database. */
  text: string;
  setAside: { at: string; by: string } | null;
}

const textOf = (document: unknown): string =>
  document instanceof BrokenJson ? document.text : JSON.stringify(document, null, 2);

const PAGE = 100;

/** Every document that does not read, of all kinds. It reads everything, in parts between which others have their turn. */
export async function all(db: Db | Tx): Promise<Damaged[]> {
  const aside = new Map((await db.select().from(setAside)).map((r) => [`${r.kind} ${r.id}`, r]));
  const found: Damaged[] = [];
  for (const kind of KINDS) {
    const { table, id, document, name, schema } = KEPT[kind];
    for (let from = 0; ; from += PAGE) {
      const rows = await db.select({ id, document, name }).from(table).orderBy(id).limit(PAGE).offset(from);
      for (const row of rows) {
        const problems = problemsOf(kind, String(row.id), schema, row.document);
        if (problems.length === 0) continue;
        const { at, by } = aside.get(`${kind} ${String(row.id)}`) ?? {};
        found.push({
          ...{ kind, id: String(row.id), name: String(row.name), problems, text: textOf(row.document) },
          setAside: at && by ? { at, by } : null,
        });
      }
      if (rows.length < PAGE) break;
      await new Promise((resolve) => setImmediate(resolve));
    }
  }
  return found;
}

/** Ids of all rows of a kind, damaged ones too. */
export async function ids(db: Db | Tx, kind: Kind): Promise<string[]> {
  const { table, id } = KEPT[kind];
  return (await db.select({ id }).from(table).orderBy(id)).map((r) => String(r.id));
}

/** A row column by column as it stands, by the names of the columns in the database. */
export async function rawRow(db: Db | Tx, kind: Kind, id: string): Promise<RawRow> {
  const { table, id: key } = KEPT[kind];
  const [row] = await db.all<RawRow>(sql`SELECT * FROM ${table} WHERE ${key} = ${id}`);
  return row ?? {};
}

export type RawRow = Record<string, string | number | null>;

/** Puts a row back as it stood; columns that this table does not have are left out. */
export async function insertRaw(tx: Tx, kind: Kind, row: RawRow): Promise<void> {
  const { table } = KEPT[kind];
  const known = Object.values(getTableColumns(table)).filter((c) => row[c.name] !== undefined);
  const names = sql.join(
    known.map((c) => sql.identifier(c.name)),
    sql`, `,
  );
  const values = sql.join(
    known.map((c) => sql`${row[c.name]}`),
    sql`, `,
  );
  await tx.run(sql`INSERT INTO ${table} (${names}) VALUES (${values})`);
}

/** How many damaged documents were met since the start and that nobody has set aside. */
export const count = async (db: Db | Tx): Promise<number> => countDamaged(await db.select().from(setAside));

function problemsOf(kind: Kind, id: string, schema: z.ZodType, document: unknown): string[] {
  try {
    readStored(kind, id, schema, document);
    return [];
  } catch (error) {
    if (error instanceof DamagedError) return error.problems;
    throw error;
  }
}

const byId = (kind: Kind, id: string): SQL => eq(KEPT[kind].id, id);

/** The document of one row as text; null when there is no such row. */
export async function textOfOne(db: Db | Tx, kind: Kind, id: string): Promise<string | null> {
  const { table, document } = KEPT[kind];
  const [row] = await db.select({ document }).from(table).where(byId(kind, id));
  return row ? textOf(row.document) : null;
}

/** Puts a document in the place of a damaged one, when it fits; it then counts as a new version. */
export async function repair(
  tx: Tx,
  kind: Kind,
  id: string,
  document: unknown,
  at: string,
): Promise<boolean> {
  const { table, name, schema, columns } = KEPT[kind];
  const [row] = await tx.select({ name }).from(table).where(byId(kind, id));
  if (!row) return false;
  const set = columns(toStore(kind, schema, document) as never, String(row.name));
  await tx
    .update(table)
    .set({ ...set, ...("updatedAt" in getTableColumns(table) && { updatedAt: at }) })
    .where(byId(kind, id));
  await tx.delete(setAside).where(and(eq(setAside.kind, kind), eq(setAside.id, id)));
  return true;
}

/** Nobody is called for it any more; the row stays as it is. */
export async function putAside(tx: Tx, kind: Kind, id: string, by: string, at: string): Promise<void> {
  await tx.insert(setAside).values({ kind, id, at, by }).onConflictDoNothing();
}
