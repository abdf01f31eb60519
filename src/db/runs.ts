import { type Procedure, procedureDocument } from "@/core/procedure";
import { and, asc, desc, eq, inArray, isNull, max } from "drizzle-orm";
import { readLogged, runEventSchema, type LoggedEvent } from "@/core/run";
import * as changeRows from "./changes";
import type { Stamp } from "./changes";
import type { Db, Tx } from "./client";
import { toStore } from "./document";
import { reading, type Kept } from "./documents";
import { runEvents, runs } from "./schema";

export interface RunRow {
  id: string;
  buildId: string;
  startedAt: string;
  endedAt: string | null;
  plan: Procedure;
}

export const KEPT: Kept<typeof runs, typeof procedureDocument.schema, RunRow> = {
  ...{ definition: procedureDocument, table: runs, key: "id", field: "plan", called: "startedAt" },
  columns: (plan) => ({ plan }),
  row: ({ id, buildId, startedAt, endedAt }, plan) => ({ id, buildId, startedAt, endedAt, plan }),
};
const rows = reading(KEPT);
export const { one } = rows;

/** Runs that are not handed over. */
export const open = (db: Db | Tx): Promise<RunRow[]> =>
  rows.some(db, isNull(runs.endedAt), [asc(runs.startedAt)]);

/** Whether there is or was a run. */
export const any = async (db: Db | Tx): Promise<boolean> =>
  (await db.select({ id: runs.id }).from(runs).limit(1)).length > 0;

/** The run of a build that is not handed over; null when there is none. */
export async function openOf(db: Db | Tx, buildId: string): Promise<string | null> {
  const row = await db.query.runs.findFirst({
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

/** The last run of a build, without its plan. */
export async function ofBuild(db: Db | Tx, id: string): Promise<RunMark | null> {
  const row = await db.query.runs.findFirst({
    where: eq(runs.buildId, id),
    columns: { plan: false },
    orderBy: desc(runs.startedAt),
  });
  return row ?? null;
}

/** The last runs of some builds, by build. */
export async function ofBuilds(db: Db | Tx, ids: string[]): Promise<Map<string, RunMark>> {
  if (ids.length === 0) return new Map();
  const { id, buildId, startedAt, endedAt } = runs;
  const found = await db
    .select({ id, buildId, startedAt, endedAt })
    .from(runs)
    .where(inArray(runs.buildId, ids))
    .orderBy(asc(runs.startedAt));
  return new Map(found.map((run) => [run.buildId, run]));
}

const EVENT = { kind: "event", schema: runEventSchema, lines: "anywhere" } as const;

export async function insert(tx: Tx, row: RunRow): Promise<void> {
  await tx.insert(runs).values({ ...row, plan: toStore(procedureDocument, row.plan) });
}

export async function end(tx: Tx, id: string, at: string): Promise<void> {
  await tx.update(runs).set({ endedAt: at }).where(eq(runs.id, id));
}

export async function log(db: Db | Tx, runId: string): Promise<LoggedEvent[]> {
  const entries = await db
    .select()
    .from(runEvents)
    .where(eq(runEvents.runId, runId))
    .orderBy(asc(runEvents.seq));
  return entries.map(({ seq, at, given, key, event }) =>
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
  const event = toStore(EVENT, entry.event);
  await tx.insert(runEvents).values({ runId, seq, ...entry, event });
  await changeRows.add(tx, "run", runId, seq, { at: entry.at, by: entry.event.by });
  return seq;
}

/** Puts a whole log back with the numbers that it has; whoever calls has looked that they count from 1. */
export async function restoreLog(
  tx: Tx,
  runId: string,
  log: readonly LoggedEvent[],
  stamp: Stamp,
): Promise<void> {
  for (const entry of log)
    await tx.insert(runEvents).values({ runId, ...entry, event: toStore(EVENT, entry.event) });
  await changeRows.add(tx, "run", runId, log.at(-1)?.seq ?? 0, stamp);
}
