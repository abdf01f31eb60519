import { createWriteStream } from "node:fs";
import { mkdir, readdir, rm, stat } from "node:fs/promises";
import { dirname, join } from "node:path";
import { tmpdir } from "node:os";
import { Readable } from "node:stream";
import { pipeline } from "node:stream/promises";
import { pathOf } from "@/db";
import { readEnvironment } from "../environment";
import type { Desk } from "../desk";

/** Beside the database, whose disk has room for what is to become part of it; for a database server, where the system keeps such files. */
function folder(): string {
  const { DERRICK_DB_URL: url } = readEnvironment();
  return url.startsWith("file:") ? dirname(pathOf(url)) : tmpdir();
}

const NAME = "derrick-incoming-";
/** Beside a database server other installations may keep theirs in the same folder: only what is older than this is nobody's. */
const ABANDONED_MILLISECONDS = 24 * 3_600_000;

/** Removes what a stop in the middle of an upload has left; called once, before anything comes in. */
export async function sweepTemporary(): Promise<void> {
  const isOwn = readEnvironment().DERRICK_DB_URL.startsWith("file:");
  const at = folder();
  const names = await readdir(at).catch(() => []);
  for (const name of names.filter((n) => n.startsWith(NAME) && n.endsWith(".tmp"))) {
    const path = join(at, name);
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
  const path = join(folder(), `${NAME}${desk.newId("t")}.tmp`);
  await mkdir(dirname(path), { recursive: true });
  try {
    await pipeline(Readable.from(chunks), createWriteStream(path));
    return await work(path);
  } finally {
    await rm(path, { force: true });
  }
}
