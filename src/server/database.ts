import { mkdirSync } from "node:fs";
import { dirname } from "node:path";
import { openDatabase, refreshProjections, type Database } from "@/db";
import { readEnvironment } from "./environment";

// Next loads server code in several bundles; the database is opened once for all of them, on first use, so that a
// build never opens it.
const shared = globalThis as { derrickDatabase?: Promise<Database> };

async function open(): Promise<Database> {
  const { DERRICK_DB_URL: url, DERRICK_DB_TOKEN: token, migrationsFolder } = readEnvironment();
  if (url.startsWith("file:")) mkdirSync(dirname(url.slice("file:".length)) || ".", { recursive: true });
  const opened = await openDatabase(url, token, migrationsFolder);
  const passed = await refreshProjections(opened);
  if (passed > 0) console.error(`Lists and claims of ${passed} machines, sheets and sites were rebuilt.`);
  return opened;
}

export const database = (): Promise<Database> => {
  shared.derrickDatabase ??= open().catch((error: unknown) => {
    // What could not be opened now is tried again with the next request.
    delete shared.derrickDatabase;
    throw error;
  });
  return shared.derrickDatabase;
};

/** Stands for the database that is open now: another object for another one. */
export const openedDatabase = (): object => {
  shared.derrickDatabase ??= database();
  return shared.derrickDatabase;
};

/** Writes all that is kept into the one file, and closes it. */
export async function closeDatabase(): Promise<void> {
  const opened = shared.derrickDatabase;
  delete shared.derrickDatabase;
  await (await opened)?.close();
}

export const now = (): string => new Date().toISOString();
