import { z } from "zod";

/** A job that is not over is one of `ON`; "interrupted" is one whose server ended before it did. */
export const jobStateSchema = z.enum(["waiting", "working", "done", "stopped", "failed", "interrupted"]);
export type JobState = z.infer<typeof jobStateSchema>;

export const jobKindSchema = z.enum(["checksum", "reading"]);
export type JobKind = z.infer<typeof jobKindSchema>;

/** Long work of the server as it stands at one moment. Times are ISO 8601 in UTC. */
export const jobSchema = z.object({
  id: z.string(),
  kind: jobKindSchema,
  /** What it works on, as a person knows it: a file's name. */
  about: z.string(),
  state: jobStateSchema,
  by: z.string(),
  askedAt: z.string(),
  /** When its turn came; null while it waits. */
  begunAt: z.string().nullable(),
  /** When the server last said that it is at it; for a job that is over, when it ended. */
  pulseAt: z.string(),
  /** Units of work (bytes of a file, characters of texts) that are done, of `size`. */
  done: z.number().nonnegative(),
  size: z.number().nonnegative(),
  /** Why it failed; null otherwise. */
  problem: z.string().nullable(),
});
export type Job = z.infer<typeof jobSchema>;

const ON: readonly JobState[] = ["waiting", "working"];

export const isOn = (job: Pick<Job, "state"> | null | undefined): boolean =>
  job !== null && job !== undefined && ON.includes(job.state);

export interface JobProgress {
  /** Whole percent, rounded down: 100 only when all is done. */
  percent: number;
  /** Units a second since it began; null until that can be told. */
  rate: number | null;
  secondsLeft: number | null;
}

/** How far a job is, by what its last pulse told. */
export function progressOf({ done, size, begunAt, pulseAt }: Job): JobProgress {
  const percent = size === 0 ? 0 : Math.min(100, Math.floor((100 * done) / size));
  const seconds = begunAt === null ? 0 : (Date.parse(pulseAt) - Date.parse(begunAt)) / 1000;
  if (!(seconds > 0) || done === 0) return { percent, rate: null, secondsLeft: null };
  const rate = done / seconds;
  return { percent, rate, secondsLeft: Math.max(0, size - done) / rate };
}
