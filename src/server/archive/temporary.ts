import { createWriteStream } from "node:fs";
import { mkdir, readdir, rm, stat } from "node:fs/promises";
import { basename, dirname, join } from "node:path";
import { tmpdir } from "node:os";
import { Readable } from "node:stream";
import { pipeline } from "node:stream/promises";
import { pathOf } from "@/db";
import { readEnvironment } from "../environment";
import type { Desk } from "../desk";

/**
 * Beside the database, whose disk has room for what is to become part of it, and under its name; for a database server, where
 * the system keeps such files, which other installations may use as well.
 */
function places(): { folder: string; name: string; isOwn: boolean } {
  const { DERRICK_DB_URL: url } = readEnvironment();
  if (!url.startsWith("file:")) return { folder: tmpdir(), name: "derrick-incoming-", isOwn: false };
  const path = pathOf(url);
  return { folder: dirname(path), name: `${basename(path)}-incoming-`, isOwn: true };
}

/** What is older than this in a folder of all is nobody's any more: an upload may take six hours. */
const ABANDONED_MILLISECONDS = 24 * 3_600_000;

/** Removes what a stop in the middle of an upload has left; called once, before anything comes in. */
export async function sweepTemporary(): Promise<void> {
  const { folder, name, isOwn } = places();
  const names = await readdir(folder).catch(() => []);
  for (const left of names.filter((n) => n.startsWith(name) && n.endsWith(".tmp"))) {
    const path = join(folder, left);
    const { mtimeMs } = await stat(path).catch(() => ({ mtimeMs: Date.now() }));
    if (isOwn || Date.now() - mtimeMs > ABANDONED_MILLISECONDS) await rm(path, { force: true });
  }
}

/** Writes what comes in to a file of its own, does `work` with it, and removes it, whatever happens. */
export async function withTemporaryFile<T>(
  desk: Desk,
  chunks: AsyncIterable<Uint8Array>,
  work: (path: string) => Promise<T>,
): Promise<T> {
  const { folder, name } = places();
  const path = join(folder, `${name}${desk.newId("t")}.tmp`);
  await mkdir(folder, { recursive: true });
  try {
    await pipeline(Readable.from(chunks), createWriteStream(path));
    return await work(path);
  } finally {
    await rm(path, { force: true });
  }
}
