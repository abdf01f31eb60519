import { readFileSync } from "node:fs";
import { join } from "node:path";
import { createClient } from "@libsql/client";
import { drizzle, type LibSQLDatabase } from "drizzle-orm/libsql";
import { migrate } from "drizzle-orm/libsql/migrator";
import * as schema from "./schema";

export type Db = LibSQLDatabase<typeof schema>;
export type Tx = Parameters<Parameters<Db["transaction"]>[0]>[0];

export interface Database {
  /** For reading. */
  db: Db;
  /**
   * For writing: one transaction at a time in this process. Two of them side by side would block the event loop while
   * they wait for each other's lock. Inside, only `tx` may be used.
   */
  write<T>(work: (tx: Tx) => Promise<T>): Promise<T>;
  close(): void;
}

const BUSY_MILLISECONDS = 5000;

/** The database was written by a later version of Derrick than this one. */
export class DatabaseTooNewError extends Error {}

/** Opens the database, brings its tables up to date, and refuses one that is newer than this program. */
export async function openDatabase(
  url: string,
  authToken: string | undefined,
  migrationsFolder: string,
): Promise<Database> {
  const client = createClient({ url, authToken, timeout: BUSY_MILLISECONDS });
  const db = drizzle(client, { schema });
  try {
    if (url.startsWith("file:")) await client.execute("PRAGMA journal_mode = WAL");
    await refuseNewer(client, url, migrationsFolder);
    await migrate(db, { migrationsFolder });
  } catch (error) {
    client.close();
    throw error;
  }
  let last: Promise<unknown> = Promise.resolve();
  return {
    db,
    write(work) {
      const turn = last.then(() => db.transaction(work));
      last = turn.catch(() => undefined);
      return turn;
    },
    close: () => client.close(),
  };
}

async function refuseNewer(
  client: ReturnType<typeof createClient>,
  url: string,
  folder: string,
): Promise<void> {
  const table = await client.execute("SELECT 1 FROM sqlite_master WHERE name = '__drizzle_migrations'");
  if (table.rows.length === 0) return;
  const newest = await client.execute("SELECT max(created_at) AS newest FROM __drizzle_migrations");
  const journal = JSON.parse(readFileSync(join(folder, "meta/_journal.json"), "utf8")) as {
    entries: { when: number }[];
  };
  const known = Math.max(...journal.entries.map((e) => e.when));
  if (Number(newest.rows[0]?.newest ?? 0) > known)
    throw new DatabaseTooNewError(
      `The database ${url} was written by a newer Derrick than this one, so nothing was opened or changed. Start the newer version, or name another database in DERRICK_DB_URL.`,
    );
}
