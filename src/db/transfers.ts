import { count, desc, max, sql } from "drizzle-orm";
import type { RateSample } from "@/core/estimate";
import type { Db, Tx } from "./client";
import { whileUnchanged } from "./unchanged";
import { transfers } from "./schema";

/** As many as rates are learned from; see learnRate for how it chooses among them. */
const NEWEST = 400;

async function readNewest(db: Db | Tx): Promise<RateSample[]> {
  const rows = await db.select().from(transfers).orderBy(desc(transfers.at)).limit(NEWEST);
  return rows.map(({ way, through, bytes, seconds, at, where }) => ({
    way: way as RateSample["way"],
    through,
    bytes,
    seconds,
    at,
    where,
  }));
}

const stampOf = async (db: Db | Tx): Promise<string> =>
  JSON.stringify(
    await db
      .select({
        rows: count(),
        last: max(transfers.at),
        bytes: sql`total(${transfers.bytes})`,
        seconds: sql`total(${transfers.seconds})`,
      })
      .from(transfers),
  );

export const newest = whileUnchanged(stampOf, readNewest);

export const all = (db: Db | Tx): Promise<(typeof transfers.$inferSelect)[]> => db.select().from(transfers);

/** Keeps a measurement; one that is repeated, after going back in a run, replaces the one before. */
export async function put(tx: Tx, runId: string, step: string, sample: RateSample): Promise<void> {
  await tx
    .insert(transfers)
    .values({ runId, step, ...sample })
    .onConflictDoUpdate({ target: [transfers.runId, transfers.step], set: sample });
}
