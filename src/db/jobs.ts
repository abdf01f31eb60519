import { and, desc, eq, inArray, lt, ne, sql } from "drizzle-orm";
import { jobSchema, type Job, type JobState } from "@/core/job";
import * as changeRows from "./changes";
import type { Db, Tx } from "./client";
import { jobs } from "./schema";

/** A job with what the use case that asked for it needs to know again. */
export interface JobRow {
  job: Job;
  input: unknown;
  server: string;
}

/** What a job is over as. */
export interface End {
  state: Exclude<JobState, "waiting" | "working">;
  at: string;
  problem?: string | null;
}

const ON = inArray(jobs.state, ["waiting", "working"]);
/** Rows that read; one that does not (a hand's doing) tells of work that nobody could go on with, and is passed over. */
const sound = (rows: readonly (typeof jobs.$inferSelect)[]): JobRow[] =>
  rows.flatMap(({ input, server, ...row }) => {
    const job = jobSchema.safeParse(row);
    return job.success ? [{ job: job.data, input, server }] : [];
  });

/** Told to pages as a change, as writes of documents are; the number says how far the job has come. */
const tell = (tx: Tx, id: string, at: string, by: string, stage: 1 | 2 | 3): Promise<void> =>
  changeRows.add(tx, "job", id, stage, { at, by });

export async function add(
  tx: Tx,
  row: Pick<Job, "id" | "kind" | "about" | "size"> & { input: unknown; server: string },
  { at, by }: changeRows.Stamp,
): Promise<void> {
  await tx.insert(jobs).values({ ...row, by, state: "waiting", askedAt: at, pulseAt: at });
  await tell(tx, row.id, at, by, 1);
}

export async function one(db: Db | Tx, id: string): Promise<JobRow | null> {
  return sound(await db.select().from(jobs).where(eq(jobs.id, id)))[0] ?? null;
}

/** All that wait or are worked at. */
export const on = async (db: Db | Tx): Promise<JobRow[]> =>
  sound(await db.select().from(jobs).where(ON).orderBy(jobs.askedAt));

/** Whether a job of the kind is on about the same. */
export const onAbout = async (db: Db | Tx, { kind, about }: Pick<Job, "kind" | "about">): Promise<boolean> =>
  (
    await db
      .select({ id: jobs.id })
      .from(jobs)
      .where(and(eq(jobs.kind, kind), eq(jobs.about, about), ON))
  ).length > 0;

const NEWEST = 2000;

/** The newest job of a kind about each thing. */
export async function newest(db: Db | Tx, kind: Job["kind"]): Promise<Map<string, JobRow>> {
  const rows = await db
    .select()
    .from(jobs)
    .where(eq(jobs.kind, kind))
    .orderBy(desc(jobs.askedAt), desc(jobs.id))
    .limit(NEWEST);
  return new Map(sound(rows.toReversed()).map((row) => [row.job.about, row]));
}

/** Gives a waiting job its turn, where fewer than `most` of its kind are worked at by its server; whether it has it now. */
export async function begin(tx: Tx, { job, server }: JobRow, most: number, at: string): Promise<boolean> {
  const [{ working } = { working: 0 }] = await tx
    .select({ working: sql<number>`count(*)` })
    .from(jobs)
    .where(and(eq(jobs.kind, job.kind), eq(jobs.server, server), eq(jobs.state, "working")));
  if (working >= most) return false;
  const begun = await tx
    .update(jobs)
    .set({ state: "working", begunAt: at, pulseAt: at })
    .where(and(eq(jobs.id, job.id), eq(jobs.state, "waiting")))
    .returning({ id: jobs.id });
  if (begun.length > 0) await tell(tx, job.id, at, job.by, 2);
  return begun.length > 0;
}

/** Says how far jobs are, and that somebody is at them; gives those that are still on. */
export async function pulse(tx: Tx, done: ReadonlyMap<string, number>, at: string): Promise<Set<string>> {
  const still = new Set<string>();
  for (const [id, units] of done) {
    const row = await tx
      .update(jobs)
      .set({ pulseAt: at, done: units })
      .where(and(eq(jobs.id, id), ON))
      .returning({ id: jobs.id });
    if (row.length > 0) still.add(id);
  }
  return still;
}

/** A job is over; whether it was on until now. What is over stays as it ended. */
export async function end(
  tx: Tx,
  id: string,
  { state, at, problem = null }: End,
  by: string,
): Promise<boolean> {
  const ended = await tx
    .update(jobs)
    .set({ state, problem, pulseAt: at, ...(state === "done" ? { done: sql`${jobs.size}` } : {}) })
    .where(and(eq(jobs.id, id), ON))
    .returning({ id: jobs.id });
  if (ended.length > 0) await tell(tx, id, at, by, 3);
  return ended.length > 0;
}

/** Jobs of other processes that are on, by their last word. */
export const ofOthers = async (db: Db | Tx, server: string): Promise<JobRow[]> =>
  sound(
    await db
      .select()
      .from(jobs)
      .where(and(ON, ne(jobs.server, server))),
  );

/** Forgets what was over before a time. */
export async function forget(tx: Tx, before: string): Promise<void> {
  await tx.delete(jobs).where(and(lt(jobs.pulseAt, before), sql`not (${ON})`));
}
