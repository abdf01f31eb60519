import { count, desc, max, sql } from "drizzle-orm";
import { stepTimeSchema, type StepTime } from "@/core/estimate";
import type { Db, Tx } from "./client";
import { whileUnchanged } from "./unchanged";
import { stepTimes } from "./schema";

/** Keeps one measured wait; the same step of the same run again takes its place. */
export async function put(tx: Tx, runId: string, step: string, time: StepTime): Promise<void> {
  await tx
    .insert(stepTimes)
    .values({ runId, step, ...time })
    .onConflictDoUpdate({ target: [stepTimes.runId, stepTimes.step], set: time });
}

const NEWEST = 2000;

const stampOf = async (db: Db | Tx): Promise<string> =>
  JSON.stringify(
    await db
      .select({ rows: count(), last: max(stepTimes.at), seconds: sql`total(${stepTimes.seconds})` })
      .from(stepTimes),
  );

/** The newest measured waits; older ones say little about machines and images of today. */
export const newest = whileUnchanged(stampOf, async (db: Db | Tx): Promise<StepTime[]> =>
  (await db.select().from(stepTimes).orderBy(desc(stepTimes.at)).limit(NEWEST)).map((row) =>
    stepTimeSchema.parse(row),
  ),
);

export const all = async (db: Db | Tx): Promise<(StepTime & { runId: string; step: string })[]> =>
  (await db.select().from(stepTimes)).map((row) => ({
    runId: row.runId,
    step: row.step,
    ...stepTimeSchema.parse(row),
  }));
