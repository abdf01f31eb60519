import { createHash } from "node:crypto";
import { createReadStream } from "node:fs";
import { lstat, open, readdir } from "node:fs/promises";
import { join } from "node:path";
import { z } from "zod";
import type { Answer } from "@/contract";
import { checksumSchema, driveLater, inspectImage, type Checksum, type Inspection } from "@/core/image";
import { isOn, type Job } from "@/core/job";
import { imageRows } from "@/db";
import { no, yes } from "./answer";
import { readEnvironment } from "./environment";
import { addFile, keepComputed, saveInside } from "./images";
import { JobProblem, newestJobs, startJob, stopJob, type Handle } from "./jobs";
import type { Desk } from "./desk";

/** What the computation of a checksum is about, kept with its job. */
const inputSchema = z.object({ imageId: z.string(), algorithm: checksumSchema.shape.algorithm });

export interface FolderFile {
  name: string;
  sizeBytes: number;
  /** The image that this file is, by name and size. */
  image: { id: string; name: string } | null;
  /** The newest computation over it, with its algorithm. */
  job: (Job & { algorithm: Checksum["algorithm"] }) | null;
}

/** Some milliseconds of hashing: between two reads everything else has its turn. */
const READ_BYTES = 2 ** 20;
const MOST_FILES = 1000;

/** Ordinary files of the folder by name. Links are passed over, since they lead out of it, and so is what is hidden. */
async function entries(folder: string): Promise<Map<string, number>> {
  const found = new Map<string, number>();
  const names = (await readdir(folder)).filter((name) => !name.startsWith("."));
  for (const name of names.slice(0, MOST_FILES)) {
    const stat = await lstat(join(folder, name)).catch(() => null);
    if (stat?.isFile()) found.set(name, stat.size);
  }
  return found;
}

/** The file of that name, by looking it up in the listing: what is asked for is a name and never a path. */
export async function lookUp(name: string): Promise<Answer<{ path: string; sizeBytes: number }>> {
  const folder = readEnvironment().DERRICK_IMAGE_DIR;
  if (!folder) return no("The server has no image folder: DERRICK_IMAGE_DIR is not set.");
  const size = (await entries(folder).catch(() => new Map<string, number>())).get(name);
  return size === undefined
    ? no(`The image folder has no file ${name}. It may have been moved; the list is updated each time.`)
    : yes({ path: join(folder, name), sizeBytes: size });
}

/** What lies in the image folder; null when there is none. A folder that cannot be read is a problem in words. */
export async function imageFolder(desk: Desk): Promise<Answer<FolderFile[]> | null> {
  const folder = readEnvironment().DERRICK_IMAGE_DIR;
  if (!folder) return null;
  const [images, jobs] = await Promise.all([imageRows.all(desk.db), newestJobs("checksum")]);
  const jobOf = (name: string): FolderFile["job"] => {
    const row = jobs.get(name);
    const input = inputSchema.safeParse(row?.input);
    return row && input.success ? { ...row.job, algorithm: input.data.algorithm } : null;
  };
  try {
    const listed = [...(await entries(folder))].sort(([a], [b]) => a.localeCompare(b));
    return yes(
      listed.map(([name, sizeBytes]) => {
        const own = images.find(({ image }) => image.fileName === name && image.sizeBytes === sizeBytes);
        return {
          name,
          sizeBytes,
          image: own ? { id: own.id, name: own.image.name } : null,
          job: jobOf(name),
        };
      }),
    );
  } catch {
    return no(
      "The image folder cannot be read. Check that the folder in DERRICK_IMAGE_DIR exists and that Derrick has permission to read it.",
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
  if (sizeBytes === 0) return no(`${name} is empty; it may still be copied.`);
  const added = await addFile(desk, name, await inspect(path, sizeBytes));
  if (added.ok) await computeFromFolder(desk, added.value.id, name);
  return added;
}

/**
 * Looks inside the file again and computes its checksum in the background, one file at a time: hashing takes the whole of
 * a processor, and pages are answered by the same one. Asking twice changes nothing.
 */
export async function computeFromFolder(desk: Desk, id: string, name: string): Promise<Answer<null>> {
  const file = await lookUp(name);
  if (!file.ok) return file;
  if (isOn((await newestJobs("checksum")).get(name)?.job)) return yes(null);
  const row = await imageRows.one(desk.db, id);
  if (!row) return no("This image no longer exists.");
  const { path, sizeBytes } = file.value;
  await saveInside(desk, id, name, await inspect(path, sizeBytes));
  const algorithm = row.image.published?.algorithm ?? "sha256";
  const input: z.infer<typeof inputSchema> = { imageId: id, algorithm };
  const ask = { kind: "checksum", about: name, size: sizeBytes, input, once: true } as const;
  await startJob(desk.actor, ask, async (handle) => {
    const value = await digestOf(path, sizeBytes, algorithm, handle);
    return (tx) => keepComputed(tx, desk, id, { algorithm, value });
  });
  return yes(null);
}

/** The digest of a whole file; one that changes meanwhile has none. */
async function digestOf(
  path: string,
  sizeBytes: number,
  algorithm: Checksum["algorithm"],
  { signal, progress }: Handle,
): Promise<string> {
  const hash = createHash(algorithm);
  let done = 0;
  try {
    for await (const chunk of createReadStream(path, { highWaterMark: READ_BYTES, signal })) {
      hash.update(chunk as Buffer);
      done += (chunk as Buffer).length;
      progress(done);
      await new Promise((resolve) => setImmediate(resolve));
    }
  } catch {
    throw new JobProblem(NOT_WHOLE);
  }
  if (done !== sizeBytes) throw new JobProblem(NOT_WHOLE);
  return hash.digest("hex");
}

const NOT_WHOLE = "The file could not be read to its end, or changed meanwhile. Nothing was saved.";

/** Stops what is computed over a file of the folder, or waits for its turn. */
export async function stopFolderJob(desk: Desk, name: string): Promise<void> {
  const job = (await newestJobs("checksum")).get(name)?.job;
  if (job && isOn(job)) await stopJob(desk.actor, job.id);
}
