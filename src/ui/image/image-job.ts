"use client";

import { proxy, wrap, type Remote } from "comlink";
import type { Checksum, ImageWork, Inspection } from "@/core/image";

/** What goes on with one file, whatever page is open: it lives beside the pages until the tab is closed. */
export interface ImageJob {
  imageId: string;
  fileName: string;
  size: number;
  state: "looking" | "computing" | "done" | "stopped" | "failed";
  found: Inspection | null;
  algorithm: Checksum["algorithm"];
  digest: string | null;
  done: number;
  startedAt: number;
  /** Bytes per second over the whole time so far. */
  rate: number;
  problem: string | null;
}

let job: ImageJob | null = null;
let worker: { remote: Remote<ImageWork>; thread: Worker } | null = null;
const listeners = new Set<() => void>();

export const subscribe = (listener: () => void): (() => void) => {
  listeners.add(listener);
  return () => listeners.delete(listener);
};
export const currentJob = (): ImageJob | null => job;
const set = (part: Partial<ImageJob>): void => {
  if (job) job = { ...job, ...part };
  for (const listener of listeners) listener();
};

function workerNow(): Remote<ImageWork> {
  if (!worker) {
    const thread = new Worker(new URL("../../workers/image-worker.ts", import.meta.url), { type: "module" });
    worker = { thread, remote: wrap<ImageWork>(thread) };
  }
  return worker.remote;
}

/** Looks inside a file without computing anything; null when it cannot be read. */
export const lookInto = (file: File): Promise<Inspection | null> =>
  workerNow()
    .inspect(file)
    .catch(() => null);

/** Looks inside a file and computes its checksum; one file at a time, a new one ends the old. */
export async function startJob(
  imageId: string,
  file: File,
  algorithm: Checksum["algorithm"],
  onFound: (found: Inspection) => Promise<void>,
  onDigest: (digest: string) => Promise<void>,
): Promise<void> {
  stopJob();
  job = {
    imageId,
    fileName: file.name,
    size: file.size,
    state: "looking",
    found: null,
    algorithm,
    digest: null,
    done: 0,
    startedAt: performance.now(),
    rate: 0,
    problem: null,
  };
  const mine = job.startedAt;
  const isMine = (): boolean => job?.startedAt === mine;
  set({});
  try {
    const found = await workerNow().inspect(file);
    if (!isMine()) return;
    set({ found, state: "computing" });
    await onFound(found);
    const begun = performance.now();
    const digest = await workerNow().hash(
      file,
      algorithm,
      proxy((done: number) => {
        if (isMine()) set({ done, rate: (done / Math.max(1, performance.now() - begun)) * 1000 });
      }),
    );
    if (!isMine()) return;
    if (digest === null) return set({ state: "stopped" });
    // "Done" is said when the digest is kept, not when it is computed.
    await onDigest(digest);
    if (isMine()) set({ state: "done", digest });
  } catch {
    if (isMine())
      set({
        state: "failed",
        problem: `${file.name} could not be read to its end. It may have been moved or changed meanwhile.`,
      });
  }
}

/** Stops the computation; what was found inside stays. */
export function stopJob(): void {
  if (job?.state !== "computing" && job?.state !== "looking") return;
  void worker?.remote.stop();
  set({ state: "stopped" });
}
