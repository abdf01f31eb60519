import { and, eq, getTableColumns, sql, type SQL } from "drizzle-orm";
import type { SQLiteTable } from "drizzle-orm/sqlite-core";
import type { z } from "zod";
import type { DocumentKind } from "@/core/document";
import { KEPT as buildKept } from "./builds";
import * as changeRows from "./changes";
import type { Stamp } from "./changes";
import type { Db, Tx } from "./client";
import { KEPT as noteKept } from "./compat";
import { countDamaged, DamagedError, readStored, toStore, type Kind, type StoredText } from "./document";
import { columnOf, putClaims, type Kept } from "./documents";
import { KEPT as driveKept } from "./drives";
import { KEPT as imageKept } from "./images";
import { KEPT as machineKept } from "./machines";
import { KEPT as runKept } from "./runs";
import { KEPT as siteKept } from "./sites";
import { setAside } from "./schema";

/** Every kind of row that holds a document, in the order in which one may refer to another. */
const ROWS: Record<Kind, Kept<SQLiteTable, z.ZodType, unknown>> = {
  site: open(siteKept),
  machine: open(machineKept),
  image: open(imageKept),
  build: open(buildKept),
  run: open(runKept),
  drive: open(driveKept),
  note: open(noteKept),
};

/** One kind among others: what is done with all kinds does not look into their documents. */
function open<T extends SQLiteTable, S extends z.ZodType, Row>(kept: Kept<T, S, Row>) {
  return kept as unknown as Kept<SQLiteTable, z.ZodType, unknown>;
}

const partsOf = (kind: Kind) => {
  const kept = ROWS[kind];
  const { table, key, field, called } = kept;
  return {
    ...kept,
    name: columnOf(table, called),
    id: columnOf(table, key),
    document: columnOf(table, field),
  };
};

export const KINDS = Object.keys(ROWS) as Kind[];

export interface Damaged {
  kind: Kind;
  id: string;
  name: string;
  problems: string[];
  /** The document as it stands in the database. */
  text: string;
  setAside: { at: string; by: string } | null;
}

/** As it stands, in lines where it is JSON. */
function textOf({ text }: StoredText): string {
  try {
    return JSON.stringify(JSON.parse(text), null, 2);
  } catch {
    return text;
  }
}

const PAGE = 100;

/** Every document that does not read, of all kinds. It reads everything, in parts between which others have their turn. */
export async function all(db: Db | Tx): Promise<Damaged[]> {
  const aside = new Map((await db.select().from(setAside)).map((r) => [`${r.kind} ${r.id}`, r]));
  const found: Damaged[] = [];
  for (const kind of KINDS) {
    const { table, id, document, name, definition } = partsOf(kind);
    for (let from = 0; ; from += PAGE) {
      const rows = await db.select({ id, document, name }).from(table).orderBy(id).limit(PAGE).offset(from);
      for (const row of rows) {
        const problems = problemsOf(definition, String(row.id), row.document as StoredText);
        if (problems.length === 0) continue;
        const { at, by } = aside.get(`${kind} ${String(row.id)}`) ?? {};
        found.push({
          ...{
            kind,
            id: String(row.id),
            name: String(row.name),
            problems,
            text: textOf(row.document as StoredText),
          },
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
  const { table, id } = partsOf(kind);
  return (await db.select({ id }).from(table).orderBy(id)).map((r) => String(r.id));
}

/** A row column by column as it stands, by the names of the columns in the database. */
export async function rawRow(db: Db | Tx, kind: Kind, id: string): Promise<RawRow> {
  const { table, id: key } = partsOf(kind);
  const [row] = await db.all<RawRow>(sql`SELECT * FROM ${table} WHERE ${key} = ${id}`);
  return row ?? {};
}

export type RawRow = Record<string, string | number | null>;

/** Puts a row back as it stood; columns that this table does not have are left out. */
export async function insertRaw(tx: Tx, kind: Kind, row: RawRow): Promise<void> {
  const { table } = partsOf(kind);
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

function problemsOf(definition: DocumentKind<Kind>, id: string, document: StoredText): string[] {
  try {
    readStored(definition, id, document);
    return [];
  } catch (error) {
    if (error instanceof DamagedError) return error.problems;
    throw error;
  }
}

const byId = (kind: Kind, id: string): SQL => eq(partsOf(kind).id, id);

/** The document of one row as text; null when there is no such row. */
export async function textOfOne(db: Db | Tx, kind: Kind, id: string): Promise<string | null> {
  const { table, document } = partsOf(kind);
  const [row] = await db.select({ document }).from(table).where(byId(kind, id));
  return row ? textOf(row.document as StoredText) : null;
}

/** Puts a document in the place of a damaged one, when it fits; it then counts as a new version. */
export async function repair(
  tx: Tx,
  kind: Kind,
  id: string,
  document: unknown,
  stamp: Stamp,
): Promise<boolean> {
  const { table, name, definition, columns } = partsOf(kind);
  const [row] = await tx.select({ name }).from(table).where(byId(kind, id));
  if (!row) return false;
  const sound = toStore(definition, document);
  const set = columns(sound);
  await tx
    .update(table)
    .set({ ...set, ...("updatedAt" in getTableColumns(table) && { updatedAt: stamp.at }) })
    .where(byId(kind, id));
  await putClaims(tx, ROWS[kind], id, sound, String(row.name));
  await changeRows.add(tx, kind, id, 0, stamp);
  await tx.delete(setAside).where(and(eq(setAside.kind, kind), eq(setAside.id, id)));
  return true;
}

/** Nobody is called for it any more; the row stays as it is. */
export async function putAside(tx: Tx, kind: Kind, id: string, by: string, at: string): Promise<void> {
  await tx.insert(setAside).values({ kind, id, at, by }).onConflictDoNothing();
}
