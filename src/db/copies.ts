import { existsSync, renameSync, rmSync, statSync } from "node:fs";
import { copyFile } from "node:fs/promises";
import { createClient, type Client } from "@libsql/client";
import { fileStamp } from "@/core/units";
import { troubleOf } from "./trouble";

/** A copy could not be made or put back, with what to do. */
export class CopyError extends Error {}

/** The path of a file: URL, without its query. */
export function pathOf(url: string): string {
  if (!url.startsWith("file:"))
    throw new CopyError(
      "The data is on a libSQL server, which makes its own backups. The archive of Derrick (/api/v1/export) contains all data too.",
    );
  return url
    .slice("file:".length)
    .replace(/^\/\/(?=\/)/, "")
    .split("?")[0]!;
}

/** Keeps the file as it stands before its tables are changed, beside it. Gives the copy's path. */
export async function copyBeforeUpgrade(client: Client, url: string, at = new Date()): Promise<string> {
  const copy = `${pathOf(url)}.before-upgrade-${fileStamp(at.toISOString())}`;
  await client.execute({ sql: "VACUUM INTO ?", args: [copy] });
  return copy;
}

/** Writes a copy of the database into a new file; a running Derrick goes on meanwhile. Gives its size in bytes. */
export async function backUp(url: string, file: string): Promise<number> {
  const path = pathOf(url);
  if (!existsSync(path)) throw new CopyError(`There is no database at ${path}, so nothing was saved.`);
  if (existsSync(file))
    throw new CopyError(`${file} exists already and is not overwritten. Name a new file.`);
  const client = createClient({ url, timeout: 15_000 });
  try {
    await client.execute({ sql: "VACUUM INTO ?", args: [file] });
  } catch (error) {
    rmSync(file, { force: true });
    throw troubleOf(error) ?? new CopyError(`${file} could not be written. Check that its folder exists.`);
  } finally {
    client.close();
  }
  await examine(file);
  return statSync(file).size;
}

/**
 * Puts a copy in the place of the database, which is kept beside it. Refused while a Derrick has the database open, and
 * for a file that is damaged or is no database of Derrick. Gives where the former database is now, if there was one.
 */
export async function restore(url: string, file: string, at = new Date()): Promise<string | null> {
  const path = pathOf(url);
  if (!existsSync(file)) throw new CopyError(`There is no file ${file}.`);
  await examine(file);
  const former = existsSync(path) ? `${path}.before-restore-${fileStamp(at.toISOString())}` : null;
  if (former) {
    await closeWal(url);
    renameSync(path, former);
  }
  for (const rest of ["-wal", "-shm"]) rmSync(path + rest, { force: true });
  await copyFile(file, path);
  return former;
}

/** Refuses a file that SQLite finds fault with or that holds no tables of Derrick. It is not changed. */
async function examine(file: string): Promise<void> {
  const beside = ["-wal", "-shm"].map((rest) => file + rest).filter((path) => !existsSync(path));
  const client = createClient({ url: `file:${file}` });
  try {
    const { rows } = await client.execute("PRAGMA quick_check(1)");
    const found = String(rows[0]?.quick_check ?? Object.values(rows[0] ?? {})[0]);
    if (found !== "ok")
      throw new CopyError(`${file} is damaged (${found}), so it cannot be used as a backup.`);
    await client.execute("SELECT max(created_at) FROM __drizzle_migrations");
    await client.execute("SELECT count(*) FROM sites");
  } catch (error) {
    if (error instanceof CopyError) throw error;
    if (troubleOf(error)?.kind === "damaged")
      throw new CopyError(`${file} is damaged or not a database, so it cannot be used as a backup.`);
    throw new CopyError(`${file} is a database, but not one of Derrick.`);
  } finally {
    client.close();
    // Reading a copy in WAL mode makes these; whoever made the copy did not.
    for (const path of beside) rmSync(path, { force: true });
  }
}

/** Brings the -wal file into the database. It cannot be left while another program has the file open: that is told. */
async function closeWal(url: string): Promise<void> {
  const client = createClient({ url, timeout: 500 });
  try {
    await client.execute("PRAGMA journal_mode = DELETE");
  } catch (error) {
    const trouble = troubleOf(error);
    if (trouble?.kind === "locked")
      throw new CopyError("The database is in use, so nothing was changed. Stop Derrick first.");
    // What is damaged is put aside as it is, with its -wal file left out: the copy takes its place.
    if (trouble?.kind !== "damaged") throw trouble ?? error;
  } finally {
    client.close();
  }
}
