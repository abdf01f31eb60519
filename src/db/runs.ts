import { and, asc, desc, eq, isNull, max } from "drizzle-orm";
import { readLogged, runEventSchema, runPlanSchema, type LoggedEvent, type RunPlan } from "@/core/run";
import type { Db, Tx } from "./client";
import { readStored, sound, toStore } from "./document";
import { builds, runEvents, runs } from "./schema";

export interface RunRow {
  id: string;
  buildId: string;
  startedAt: string;
  endedAt: string | null;
  plan: RunPlan;
}

const read = (row: typeof runs.$inferSelect): RunRow => ({
  ...row,
  plan: readStored("run", row.id, runPlanSchema, row.plan),
});

export async function one(db: Db | Tx, id: string): Promise<RunRow | null> {
  const row = await db.query.runs.findFirst({ where: eq(runs.id, id) });
  return row ? read(row) : null;
}

/** Runs that are not handed over. */
export const open = async (db: Db | Tx): Promise<RunRow[]> =>
  sound(await db.select().from(runs).where(isNull(runs.endedAt)).orderBy(asc(runs.startedAt)), read);

export const all = async (db: Db | Tx): Promise<RunRow[]> =>
  sound(await db.select().from(runs).orderBy(asc(runs.startedAt)), read);

/** The run of a build that is not handed over; null when there is none. */
export async function openOf(tx: Tx, buildId: string): Promise<string | null> {
  const row = await tx.query.runs.findFirst({
    where: and(eq(runs.buildId, buildId), isNull(runs.endedAt)),
    columns: { id: true },
  });
  return row?.id ?? null;
}

export interface RunMark {
  id: string;
  buildId: string;
  startedAt: string;
  endedAt: string | null;
}

/** Runs without their plans, newest first. */
export async function marks(db: Db | Tx): Promise<(RunMark & { machineId: string | null })[]> {
  return db
    .select({
      id: runs.id,
      buildId: runs.buildId,
      startedAt: runs.startedAt,
      endedAt: runs.endedAt,
      machineId: builds.machineId,
    })
    .from(runs)
    .innerJoin(builds, eq(builds.id, runs.buildId))
    .orderBy(desc(runs.startedAt));
}

export async function insert(tx: Tx, row: RunRow): Promise<void> {
  await tx.insert(runs).values({ ...row, plan: toStore("run", runPlanSchema, row.plan) });
}

export async function end(tx: Tx, id: string, at: string): Promise<void> {
  await tx.update(runs).set({ endedAt: at }).where(eq(runs.id, id));
}

export async function log(db: Db | Tx, runId: string): Promise<LoggedEvent[]> {
  const rows = await db
    .select()
    .from(runEvents)
    .where(eq(runEvents.runId, runId))
    .orderBy(asc(runEvents.seq));
  return rows.map(({ seq, at, given, key, event }) =>
    readLogged({ seq, at, ...(given && { given }), key, event }),
  );
}

export async function hasKey(tx: Tx, runId: string, key: string): Promise<boolean> {
  return (
    (await tx.query.runEvents.findFirst({
      where: and(eq(runEvents.runId, runId), eq(runEvents.key, key)),
    })) !== undefined
  );
}

/** Appends one event with the next number. */
export async function append(tx: Tx, runId: string, entry: Omit<LoggedEvent, "seq">): Promise<number> {
  const [last] = await tx
    .select({ seq: max(runEvents.seq) })
    .from(runEvents)
    .where(eq(runEvents.runId, runId));
  const seq = (last?.seq ?? 0) + 1;
  const event = toStore("event", runEventSchema, entry.event);
  await tx.insert(runEvents).values({ runId, seq, ...entry, event });
  return seq;
}

/** Puts a whole log back with the numbers that it has; whoever calls has looked that they count from 1. */
export async function restoreLog(tx: Tx, runId: string, log: readonly LoggedEvent[]): Promise<void> {
  for (const entry of log)
    await tx
      .insert(runEvents)
      .values({ runId, ...entry, event: toStore("event", runEventSchema, entry.event) });
}
