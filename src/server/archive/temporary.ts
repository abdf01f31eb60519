import { createWriteStream } from "node:fs";
import { mkdir, rm } from "node:fs/promises";
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

/** Writes what comes in to a file of its own, does `work` with it, and removes it, whatever happens. */
export async function withTemporaryFile<T>(
  desk: Desk,
  chunks: AsyncIterable<Uint8Array>,
  work: (path: string) => Promise<T>,
): Promise<T> {
  const path = join(folder(), `incoming-${desk.newId("t")}.tmp`);
  await mkdir(dirname(path), { recursive: true });
  try {
    await pipeline(Readable.from(chunks), createWriteStream(path));
    return await work(path);
  } finally {
    await rm(path, { force: true });
  }
}
