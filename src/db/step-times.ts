import { desc } from "drizzle-orm";
import { stepTimeSchema, type StepTime } from "@/core/estimate";
import type { Db, Tx } from "./client";
import { stepTimes } from "./schema";

/** Keeps one measured wait; the same step of the same run again takes its place. */
export async function put(tx: Tx, runId: string, step: string, time: StepTime): Promise<void> {
  await tx
    .insert(stepTimes)
    .values({ runId, step, ...time })
    .onConflictDoUpdate({ target: [stepTimes.runId, stepTimes.step], set: time });
}

/** The newest measured waits; older ones say little about machines and images of today. */
export const newest = async (db: Db | Tx, most = 2000): Promise<StepTime[]> =>
  (await db.select().from(stepTimes).orderBy(desc(stepTimes.at)).limit(most)).map((row) =>
    stepTimeSchema.parse(row),
  );

export const all = async (db: Db | Tx): Promise<(StepTime & { runId: string; step: string })[]> =>
  (await db.select().from(stepTimes)).map((row) => ({
    runId: row.runId,
    step: row.step,
    ...stepTimeSchema.parse(row),
  }));
