import type { Job } from "@/core/job";
import { changeRows, jobRows, type Change } from "@/db";
import { database } from "./database";
import { health } from "./health";

/** What a page that listens is told. */
export type News =
  | { event: "changes"; changes: Change[] }
  /** More has changed than is told one by one: look at everything again. */
  | { event: "much" }
  /** How far long work is, as long as there is some; that it has begun or is over is a change. */
  | { event: "jobs"; jobs: Job[] }
  /** Null while the database answers, else what is the matter; it is told every few seconds, so that silence is news too. */
  | { event: "health"; trouble: string | null };

type Listener = (news: News) => void;

/** Other processes may write into the same database; their changes are noticed within this time. */
const PULSE_MILLISECONDS = 3000;
const MOST_AT_ONCE = 200;

interface Hub {
  listeners: Set<Listener>;
  /** What ends the stream of each listener. */
  ends: Map<Listener, () => void>;
  /** The last change that was told; null before the first look. */
  told: number | null;
  timer: ReturnType<typeof setInterval> | null;
  looking: Promise<void> | null;
  again: boolean;
}

// Next loads server code in several bundles; all of them speak to the same listeners.
const shared = globalThis as { derrickFeed?: Hub };
const hub = (): Hub =>
  (shared.derrickFeed ??= {
    listeners: new Set(),
    ends: new Map(),
    told: null,
    timer: null,
    looking: null,
    again: false,
  });

const tell = (news: News): void => hub().listeners.forEach((listener) => listener(news));

/** Tells what was written since the last look, and how far long work is. */
async function look(): Promise<void> {
  const own = hub();
  const { db } = await database();
  const told = own.told ?? (await changeRows.last(db));
  const changes = await changeRows.since(db, told, MOST_AT_ONCE + 1);
  const much = changes.length > MOST_AT_ONCE;
  // What is written while this looks is told with it, or by the next look, and not by both.
  own.told = much ? await changeRows.last(db) : (changes.at(-1)?.seq ?? told);
  if (changes.length > 0) tell(much ? { event: "much" } : { event: "changes", changes });
  const jobs = await jobRows.on(db);
  if (jobs.length > 0) tell({ event: "jobs", jobs: jobs.map(({ job }) => job) });
}

/** Something was written: whoever listens is told, once for all that came together. */
export function nudge(): void {
  const own = hub();
  if (own.listeners.size === 0) return;
  if (own.looking) {
    own.again = true;
    return;
  }
  own.looking = look()
    .catch(() => undefined)
    .finally(() => {
      own.looking = null;
      if (own.again) {
        own.again = false;
        nudge();
      }
    });
}

async function pulse(): Promise<void> {
  const state = await health();
  tell({ event: "health", trouble: state.ok ? null : (state.problems[0]?.message ?? "no answer") });
  nudge();
}

/** Listens from now on; gives what ends it. `end` is called when the server goes. */
export async function listen(listener: Listener, end: () => void = () => undefined): Promise<() => void> {
  const own = hub();
  if (own.listeners.size === 0) own.told = await changeRows.last((await database()).db).catch(() => null);
  own.listeners.add(listener);
  own.ends.set(listener, end);
  own.timer ??= setInterval(() => void pulse(), PULSE_MILLISECONDS);
  return () => {
    own.listeners.delete(listener);
    own.ends.delete(listener);
    if (own.listeners.size > 0 || own.timer === null) return;
    clearInterval(own.timer);
    own.timer = null;
  };
}

/** The server is told to stop: nobody is kept on the line. */
export const hangUp = (): void => [...hub().ends.values()].forEach((end) => end());

/** What was written after a change that a page has seen; null when that is too much to tell one by one. */
export async function missed(seq: number): Promise<Change[] | null> {
  const changes = await changeRows.since((await database()).db, seq, MOST_AT_ONCE + 1);
  return changes.length > MOST_AT_ONCE ? null : changes;
}
