import { createHash } from "node:crypto";
import { createReadStream } from "node:fs";
import { lstat, open, readdir } from "node:fs/promises";
import { join } from "node:path";
import { driveLater, inspectImage, type Checksum, type Inspection } from "@/core/image";
import { imageRows } from "@/db";
import { no, yes, type Answer } from "./answer";
import { readEnvironment } from "./environment";
import { makeQueue } from "./queue";
import { addFile, saveComputed, saveInside } from "./images";
import type { Desk } from "./desk";

/** A computation over a file of the folder, or one that waits for its turn. It lives in the server: a page may be closed and opened meanwhile. */
export interface FolderJob {
  algorithm: Checksum["algorithm"];
  state: "waiting" | "computing" | "done" | "stopped" | "failed";
  done: number;
  size: number;
  startedAt: number;
  /** Bytes per second over the whole time so far. */
  rate: number;
  digest: string | null;
  problem: string | null;
}

export interface FolderFile {
  name: string;
  sizeBytes: number;
  /** The image that this file is, by name and size. */
  image: { id: string; name: string } | null;
  job: FolderJob | null;
}

/** Next loads server code in several bundles; jobs are kept once for all of them. */
const shared = globalThis as {
  derrickFolderJobs?: Map<string, FolderJob>;
  derrickFolderQueue?: ReturnType<typeof makeQueue>;
};
const jobs = (): Map<string, FolderJob> => (shared.derrickFolderJobs ??= new Map());
/** One file at a time: hashing takes the whole of a processor, and pages are answered by the same one. */
const queue = (): ReturnType<typeof makeQueue> => (shared.derrickFolderQueue ??= makeQueue(1));

/** Some milliseconds of hashing: between two reads everything else has its turn. */
const READ_BYTES = 2 ** 20;
const MOST_FILES = 1000;

/** Ordinary files of the folder by name. Links are passed over: they lead out of it. */
async function entries(folder: string): Promise<Map<string, number>> {
  const found = new Map<string, number>();
  for (const name of (await readdir(folder)).slice(0, MOST_FILES)) {
    const stat = await lstat(join(folder, name)).catch(() => null);
    if (stat?.isFile()) found.set(name, stat.size);
  }
  return found;
}

/** The file of that name, by looking it up in the listing: what is asked for is a name and never a path. */
async function lookUp(name: string): Promise<Answer<{ path: string; sizeBytes: number }>> {
  const folder = readEnvironment().DERRICK_IMAGE_DIR;
  if (!folder) return no("This server has no image folder: DERRICK_IMAGE_DIR is not set.");
  const size = (await entries(folder).catch(() => new Map<string, number>())).get(name);
  return size === undefined
    ? no(`The image folder has no file ${name}. It may have been moved; the list is read anew each time.`)
    : yes({ path: join(folder, name), sizeBytes: size });
}

/** What lies in the image folder; null when there is none. A folder that cannot be read is a problem in words. */
export async function imageFolder(desk: Desk): Promise<Answer<FolderFile[]> | null> {
  const folder = readEnvironment().DERRICK_IMAGE_DIR;
  if (!folder) return null;
  const images = await imageRows.all(desk.db);
  try {
    const listed = [...(await entries(folder))].sort(([a], [b]) => a.localeCompare(b));
    return yes(
      listed.map(([name, sizeBytes]) => {
        const own = images.find(({ image }) => image.fileName === name && image.sizeBytes === sizeBytes);
        return {
          name,
          sizeBytes,
          image: own ? { id: own.id, name: own.image.name } : null,
          job: jobs().get(name) ?? null,
        };
      }),
    );
  } catch {
    return no(
      "The image folder cannot be read. Does the folder that DERRICK_IMAGE_DIR names exist, and may Derrick read it?",
    );
  }
}

/** Looks inside a file of the folder by range reads. */
async function inspect(path: string, sizeBytes: number): Promise<Inspection> {
  const file = await open(path, "r");
  try {
    const { value, bytesRead } = await driveLater(
      inspectImage(sizeBytes),
      sizeBytes,
      async ({ offset, length }) => {
        const buffer = new Uint8Array(length);
        const { bytesRead: got } = await file.read(buffer, 0, length, offset);
        return buffer.subarray(0, got);
      },
    );
    return { ...value, bytesRead };
  } finally {
    await file.close();
  }
}

/** Puts a file of the folder on the shelf, looked into, and begins to compute its checksum. */
export async function shelveFromFolder(
  desk: Desk,
  name: string,
): Promise<Answer<{ id: string; known: boolean }>> {
  const file = await lookUp(name);
  if (!file.ok) return file;
  const { path, sizeBytes } = file.value;
  if (sizeBytes === 0) return no(`${name} is empty; an image that is still being copied may look like this.`);
  const added = await addFile(desk, name, await inspect(path, sizeBytes));
  if (added.ok) await computeFromFolder(desk, added.value.id, name);
  return added;
}

/** Looks inside the file again and computes its checksum in the background; asking twice changes nothing. */
export async function computeFromFolder(desk: Desk, id: string, name: string): Promise<Answer<null>> {
  const file = await lookUp(name);
  if (!file.ok) return file;
  if (isOn(jobs().get(name))) return yes(null);
  const row = await imageRows.one(desk.db, id);
  if (!row) return no("This image is no longer there.");
  const { path, sizeBytes } = file.value;
  await saveInside(desk, id, name, await inspect(path, sizeBytes));
  const job: FolderJob = {
    algorithm: row.image.published?.algorithm ?? "sha256",
    state: "waiting",
    done: 0,
    size: sizeBytes,
    startedAt: Date.now(),
    rate: 0,
    digest: null,
    problem: null,
  };
  jobs().set(name, job);
  void queue()(() => compute(job, path)).then(async () => {
    if (job.digest !== null)
      await saveComputed({ ...desk, actor: `${desk.actor}, on the server` }, id, {
        algorithm: job.algorithm,
        value: job.digest,
      });
  });
  return yes(null);
}

const isOn = (job: FolderJob | undefined): boolean => job?.state === "computing" || job?.state === "waiting";

/** Runs until the file ends, fails, or somebody stops it; the job says which. */
async function compute(job: FolderJob, path: string): Promise<void> {
  // It may have been stopped while it waited for its turn.
  if (job.state !== "waiting") return;
  Object.assign(job, { state: "computing", startedAt: Date.now() });
  const hash = createHash(job.algorithm);
  try {
    for await (const chunk of createReadStream(path, { highWaterMark: READ_BYTES })) {
      // stopFolderJob changes the state while this loop waits for the disk.
      if ((job.state as FolderJob["state"]) === "stopped") return;
      hash.update(chunk as Buffer);
      job.done += (chunk as Buffer).length;
      await new Promise((resolve) => setImmediate(resolve));
      job.rate = (job.done / Math.max(1, Date.now() - job.startedAt)) * 1000;
    }
    if (job.done !== job.size) throw new Error("changed");
    Object.assign(job, { state: "done", digest: hash.digest("hex") });
  } catch {
    Object.assign(job, {
      state: "failed",
      problem: "The file could not be read to its end, or changed meanwhile. Nothing was kept.",
    });
  }
}

export function stopFolderJob(name: string): void {
  const job = jobs().get(name);
  if (job && isOn(job)) job.state = "stopped";
}
