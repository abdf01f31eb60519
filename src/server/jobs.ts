import { hostname } from "node:os";
import type { Job, JobKind } from "@/core/job";
import { jobRows, type Tx } from "@/db";
import { deskOf, type Desk } from "./desk";

// Long work of this server. What stands in the rows is all that pages see; in memory there is only the work itself, in the
// bundle that began it. A job is never thought to go on when nobody is at it: its process says so every second.

/** What work is given: it looks at the signal between its pieces, and tells how far it is. */
export interface Handle {
  signal: AbortSignal;
  progress(done: number): void;
}

/** Keeps what came of the work, in the same write that says that the job is done. */
export type Keep = (tx: Tx) => Promise<unknown>;
export type Work = (handle: Handle) => Promise<Keep>;

/** Why work cannot be done, in words for the person who asked for it. */
export class JobProblem extends Error {}

/** How many jobs of a kind are worked at side by side; the others wait. */
const PLACES: Record<JobKind, number> = { checksum: 1, reading: 2 };

const PULSE_MILLISECONDS = 1000;
/** A process that has said nothing for so long is not at its jobs any more. */
const SILENT_MILLISECONDS = 12_000;
const SWEEP_MILLISECONDS = 4000;
const REMEMBERED_MILLISECONDS = 90 * 24 * 3600 * 1000;

/** This process by name: its number alone comes back after a restart. */
const SERVER = `${hostname()}/${process.pid}/${Math.round(performance.timeOrigin)}`;

interface Mine {
  row: jobRows.JobRow;
  work: Work;
  controller: AbortController;
  done: number;
  begun: boolean;
  over: (job: Job | null) => void;
}

/** What this bundle of the server has begun, or will. */
const mine = new Map<string, Mine>();
let timer: ReturnType<typeof setInterval> | null = null;

const runner = (): Promise<Desk> => deskOf("Derrick");

export interface Ask {
  kind: JobKind;
  /** What it works on, as a person knows it. */
  about: string;
  /** Units of the work: bytes, characters. */
  size: number;
  /** What the use case needs to know again. */
  input?: unknown;
  /** Named by the page that waits for it. */
  id?: string;
  /** Not begun while another of its kind is on about the same. */
  once?: boolean;
}

export interface Started {
  id: string;
  /** The job as it ended; null when the rows could not tell. */
  over: Promise<Job | null>;
}

/** Writes a job down and does it when its turn comes; null where that one is on already. */
export async function startJob(actor: string, ask: Ask, work: Work): Promise<Started | null> {
  const desk = await deskOf(actor);
  const { id = desk.newId("j"), input = {}, once = false, ...rest } = ask;
  const row = { ...rest, id, input, server: SERVER };
  const isNew = await desk.write(async (tx) => {
    if (once && (await jobRows.onAbout(tx, row))) return false;
    await jobRows.add(tx, row, desk.stamp());
    return true;
  });
  if (!isNew) return null;
  const job = (await jobRows.one(desk.db, id))!;
  const over = new Promise<Job | null>((resolve) => {
    mine.set(id, {
      ...{ row: job, work, controller: new AbortController() },
      ...{ done: 0, begun: false, over: resolve },
    });
  });
  timer ??= setInterval(() => void beat(), PULSE_MILLISECONDS);
  timer.unref();
  void turn();
  return { id, over };
}

/** Begins those that wait, as far as there are places, in the order in which they came. */
async function beginWaiting(): Promise<void> {
  const full = new Set<JobKind>();
  for (const own of mine.values()) {
    const { kind } = own.row.job;
    if (own.begun || full.has(kind)) continue;
    const desk = await runner();
    if (await desk.write((tx) => jobRows.begin(tx, own.row, PLACES[kind], desk.now()))) {
      own.begun = true;
      void carryOut(own);
    } else full.add(kind);
  }
}

let turns: Promise<void> = Promise.resolve();

/** One look after another; what the database cannot say now, it is asked again at the next pulse. */
const turn = (): Promise<void> => (turns = turns.then(beginWaiting).catch(() => undefined));

/** Does the work of a job, and writes down how it ended. */
async function carryOut(own: Mine): Promise<void> {
  const { id, by } = own.row.job;
  const { signal } = own.controller;
  const handle: Handle = { signal, progress: (done) => (own.done = done) };
  try {
    const keep = await own.work(handle);
    const desk = await runner();
    await desk.write(async (tx) => {
      if (await jobRows.end(tx, id, { state: "done", at: desk.now() }, by)) await keep(tx);
    });
  } catch (error) {
    if (!signal.aborted) await fail(own, error);
  } finally {
    mine.delete(id);
    own.over(await lookUp(id).catch(() => null));
    void turn();
  }
}

async function fail({ row: { job } }: Mine, error: unknown): Promise<void> {
  const isKnown = error instanceof JobProblem;
  if (!isKnown) console.error(error);
  const problem = isKnown
    ? error.message
    : "Derrick failed with an unexpected error, and nothing was saved. The server log has the cause.";
  const desk = await runner();
  await desk
    .write((tx) => jobRows.end(tx, job.id, { state: "failed", at: desk.now(), problem }, job.by))
    .catch((trouble: unknown) => console.error(trouble));
}

/** Says how far everything is, ends what was stopped elsewhere, and begins what waited for a place elsewhere. */
async function beat(): Promise<void> {
  if (mine.size === 0) {
    if (timer) clearInterval(timer);
    timer = null;
    return;
  }
  const done = new Map([...mine].map(([id, own]) => [id, own.done]));
  const desk = await runner();
  const still = await desk.write((tx) => jobRows.pulse(tx, done, desk.now())).catch(() => null);
  if (!still) return;
  for (const id of done.keys()) if (!still.has(id)) letGo(id);
  await turn();
}

/** Stopped, or ended by somebody else: what has begun hears it, what has not will not begin. */
function letGo(id: string): void {
  const own = mine.get(id);
  if (!own) return;
  own.controller.abort();
  if (own.begun) return;
  mine.delete(id);
  void lookUp(id)
    .catch(() => null)
    .then(own.over);
}

/** Stops a job, whichever process is at it: another one hears of it at its next pulse. */
export async function stopJob(actor: string, id: string): Promise<void> {
  const desk = await deskOf(actor);
  await desk.write((tx) => jobRows.end(tx, id, { state: "stopped", at: desk.now() }, actor));
  letGo(id);
}

export const lookUp = async (id: string): Promise<Job | null> =>
  (await jobRows.one((await runner()).db, id))?.job ?? null;

/** The newest job of a kind about each thing, with what was asked. */
export const newestJobs = async (kind: JobKind): Promise<Map<string, jobRows.JobRow>> =>
  jobRows.newest((await runner()).db, kind);

/** Whether a process of this machine's name is there no more; of another machine, only its silence tells. */
function isGone(server: string): boolean {
  const [host, number] = server.split("/");
  if (host !== hostname()) return false;
  // The same number is this process, and it has another name.
  if (Number(number) === process.pid) return true;
  try {
    process.kill(Number(number), 0);
    return false;
  } catch (error) {
    return (error as NodeJS.ErrnoException).code === "ESRCH";
  }
}

/** Jobs of processes that have ended, or have fallen silent, are interrupted: nothing of them was kept. */
export async function sweepJobs(): Promise<void> {
  const desk = await runner();
  const now = Date.parse(desk.now());
  const lost = (await jobRows.ofOthers(desk.db, SERVER)).filter(
    ({ job, server }) => isGone(server) || now - Date.parse(job.pulseAt) > SILENT_MILLISECONDS,
  );
  if (lost.length === 0) return;
  await desk.write(async (tx) => {
    for (const { job } of lost)
      await jobRows.end(tx, job.id, { state: "interrupted", at: job.pulseAt }, job.by);
  });
}

let sweeping: ReturnType<typeof setInterval> | null = null;

/** Looks for what an earlier process left behind, now and from time to time. */
export async function watchJobs(): Promise<void> {
  const desk = await runner();
  const old = new Date(Date.parse(desk.now()) - REMEMBERED_MILLISECONDS).toISOString();
  await desk.write((tx) => jobRows.forget(tx, old));
  await sweepJobs();
  sweeping ??= setInterval(() => void sweepJobs().catch(() => undefined), SWEEP_MILLISECONDS);
  sweeping.unref();
}

/** The server ends: what it is at is interrupted, and says so. */
export async function endJobs(): Promise<void> {
  if (sweeping) clearInterval(sweeping);
  sweeping = null;
  const desk = await runner();
  const own = (await jobRows.on(desk.db)).filter(({ server }) => server === SERVER);
  if (own.length === 0) return;
  await desk.write(async (tx) => {
    for (const { job } of own)
      await jobRows.end(tx, job.id, { state: "interrupted", at: desk.now() }, job.by);
  });
  for (const { job } of own) letGo(job.id);
}
