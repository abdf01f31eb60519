import { asc, eq, gt } from "drizzle-orm";
import type { SQLiteTable } from "drizzle-orm/sqlite-core";
import type { z } from "zod";
import { KEPT as buildKept } from "./builds";
import type { Database, Tx } from "./client";
import { sound, readStored, type StoredText } from "./document";
import { columnOf, putClaims, type Kept } from "./documents";
import { KEPT as machineKept } from "./machines";
import { projections } from "./schema";
import { KEPT as siteKept } from "./sites";

/** Counts the ways in which summaries, columns and claims were made of documents. Whoever changes one adds to it. */
const VERSION = 3;
const NAME = "documents";
const PAGE = 50;

/**
 * Makes anew what follows from documents, when an earlier Derrick made it otherwise; documents themselves stay as they
 * are. Gives how many were gone through; 0 when all was as it should be.
 */
export async function refreshProjections({ db, write }: Pick<Database, "db" | "write">): Promise<number> {
  const [made] = await db.select().from(projections).where(eq(projections.name, NAME));
  if (made?.version === VERSION) return 0;
  const passed =
    (await refresh(write, machineKept)) +
    (await refresh(write, buildKept)) +
    (await refresh(write, siteKept));
  const row = { name: NAME, version: VERSION };
  await write((tx) =>
    tx.insert(projections).values(row).onConflictDoUpdate({ target: projections.name, set: row }),
  );
  return passed;
}

/** Page by page, so that no transaction is long; a damaged row keeps what it has. */
async function refresh<T extends SQLiteTable, S extends z.ZodType, Row>(
  write: Database["write"],
  kept: Kept<T, S, Row>,
): Promise<number> {
  let passed = 0;
  for (let after: string | null = ""; after !== null;)
    after = await write(async (tx) => {
      const rows = await page(tx, kept, after ?? "");
      passed += rows.length;
      for (const row of sound(rows, (r) => ({ ...r, document: readStored(kept.definition, r.id, r.stored) })))
        await refreshOne(tx, kept, row);
      return rows.length < PAGE ? null : rows.at(-1)!.id;
    });
  return passed;
}

async function page<T extends SQLiteTable, S extends z.ZodType, Row>(
  tx: Tx,
  kept: Kept<T, S, Row>,
  after: string,
) {
  const { table, key, field, called } = kept;
  const id = columnOf(table, key);
  const rows = (await tx.select().from(table).where(gt(id, after)).orderBy(asc(id)).limit(PAGE)) as Record<
    string,
    unknown
  >[];
  return rows.map((row) => ({
    id: String(row[key]),
    name: String(row[called]),
    stored: row[field] as StoredText,
  }));
}

async function refreshOne<T extends SQLiteTable, S extends z.ZodType, Row>(
  tx: Tx,
  kept: Kept<T, S, Row>,
  { id, name, document }: { id: string; name: string; document: z.output<S> },
): Promise<void> {
  const { table, key, field } = kept;
  const { [field]: _, ...columns } = kept.columns(document);
  if (Object.keys(columns).length > 0)
    await tx
      .update(table)
      .set(columns as never)
      .where(eq(columnOf(table, key), id));
  await putClaims(tx, kept, id, document, name);
}
