import { asc, eq, inArray } from "drizzle-orm";
import type { Reading } from "@/core/readings";
import * as changeRows from "./changes";
import type { Db, Tx } from "./client";
import { readings } from "./schema";

const read = ({ id: _, machineId: __, ...row }: typeof readings.$inferSelect): Reading => row as Reading;

export const of = async (db: Db | Tx, machineId: string): Promise<Reading[]> =>
  (await db.select().from(readings).where(eq(readings.machineId, machineId)).orderBy(asc(readings.at))).map(
    read,
  );

/** Readings of some machines, or of every one, by machine. */
export async function byMachine(db: Db | Tx, ids?: string[]): Promise<Map<string, Reading[]>> {
  const byMachine = new Map<string, Reading[]>();
  const wanted = ids ? inArray(readings.machineId, ids) : undefined;
  for (const row of await db.select().from(readings).where(wanted).orderBy(asc(readings.at)))
    byMachine.set(row.machineId, [...(byMachine.get(row.machineId) ?? []), read(row)]);
  return byMachine;
}

const CHUNK = 500;

export async function add(tx: Tx, machineId: string, rows: readonly Reading[]): Promise<void> {
  for (let i = 0; i < rows.length; i += CHUNK)
    await tx.insert(readings).values(rows.slice(i, i + CHUNK).map((r) => ({ ...r, machineId })));
  const last = rows.at(-1);
  if (last) await changeRows.add(tx, "reading", machineId, rows.length, last);
}
