import { readFileSync } from "node:fs";
import { join } from "node:path";
import { createClient, type Client } from "@libsql/client";
import { drizzle, type LibSQLDatabase } from "drizzle-orm/libsql";
import { migrate } from "drizzle-orm/libsql/migrator";
import { copyBeforeUpgrade } from "./copies";
import { patient, type Patience } from "./patient";
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
  /** For reading much that must fit together: all of it sees the state of one moment. Only `tx` may be used inside. */
  snapshot<T>(work: (tx: Tx) => Promise<T>): Promise<T>;
  /** Fails with the reason in words when the database cannot be read at this moment. */
  probe(): Promise<void>;
  /** The copy that was kept because the tables were changed at this start; null when they were not. */
  upgradedFrom: string | null;
  /** Writes everything into the one file (the -wal file beside it is empty then), and closes it. */
  close(): Promise<void>;
}

const LOCAL: Patience = { lockedMilliseconds: 15_000, callMilliseconds: null };
const REMOTE: Patience = { lockedMilliseconds: 15_000, callMilliseconds: 10_000 };

/** After the last of some writes, all is brought into the one file, so that a copy of it holds what was saved. */
const CHECKPOINT_MILLISECONDS = 1500;
/** While writes go on without a pause, it is done this often. */
const CHECKPOINT_AT_LEAST_MILLISECONDS = 30_000;

/** The database was written by a later version of Derrick than this one. */
export class DatabaseTooNewError extends Error {}

/** Opens the database, brings its tables up to date, and refuses one that is newer than this program. */
export async function openDatabase(
  url: string,
  authToken: string | undefined,
  migrationsFolder: string,
  patience: Partial<Patience> = {},
): Promise<Database> {
  const local = url.startsWith("file:");
  const connect = (): Client =>
    patient(createClient({ url, authToken, timeout: 0 }), { ...(local ? LOCAL : REMOTE), ...patience });
  const client = connect();
  const db = drizzle(client, { schema });
  let upgradedFrom: string | null = null;
  try {
    if (local) await client.execute("PRAGMA journal_mode = WAL");
    const stands = await appliedMigrations(client);
    const known = knownMigrations(migrationsFolder);
    if (stands !== null && stands > Math.max(...known)) throw new DatabaseTooNewError(tooNew(url));
    if (local && stands !== null && known.some((when) => when > stands))
      upgradedFrom = await copyBeforeUpgrade(client, url);
    await migrate(db, { migrationsFolder });
  } catch (error) {
    client.close();
    throw error;
  }
  return opened(client, connect(), local, upgradedFrom);
}

/** Reading and writing have connections of their own, so that one which a foreign lock has spoilt can be dropped. */
function opened(reader: Client, writer: Client, local: boolean, upgradedFrom: string | null): Database {
  const db = drizzle(reader, { schema });
  const writing = drizzle(writer, { schema });
  let last: Promise<unknown> = Promise.resolve();
  let timer: ReturnType<typeof setTimeout> | null = null;
  let unwrittenSince: number | null = null;

  const checkpoint = async (): Promise<void> => {
    timer = null;
    unwrittenSince = null;
    // A reader or a foreign program may stand in the way; the next writes ask again.
    await writer.execute("PRAGMA wal_checkpoint(TRUNCATE)").catch(() => undefined);
  };
  const checkpointSoon = (): void => {
    if (!local) return;
    unwrittenSince ??= Date.now();
    if (timer && Date.now() - unwrittenSince > CHECKPOINT_AT_LEAST_MILLISECONDS) return;
    if (timer) clearTimeout(timer);
    timer = setTimeout(() => void checkpoint(), CHECKPOINT_MILLISECONDS);
    timer.unref();
  };

  return {
    db,
    upgradedFrom,
    write(work) {
      const turn = last.then(() => writing.transaction(work));
      last = turn.then(checkpointSoon, () => undefined);
      return turn;
    },
    snapshot: (work) => db.transaction(work, { behavior: "deferred" }),
    probe: async () => void (await reader.execute("SELECT 1 FROM sites LIMIT 1")),
    async close() {
      await last;
      if (timer) clearTimeout(timer);
      if (local) await checkpoint();
      reader.close();
      writer.close();
    },
  };
}

const tooNew = (url: string): string =>
  `The database ${url} was written by a newer Derrick than this one, so nothing was opened or changed. Start the newer version, or name another database in DERRICK_DB_URL.`;

/** When the newest migration of this program was made, and those before it. */
export function knownMigrations(folder: string): number[] {
  const journal = JSON.parse(readFileSync(join(folder, "meta/_journal.json"), "utf8")) as {
    entries: { when: number }[];
  };
  return journal.entries.map((e) => e.when);
}

/** When the newest migration that the database has was made; null for a new file. */
async function appliedMigrations(client: Client): Promise<number | null> {
  const table = await client.execute("SELECT 1 FROM sqlite_master WHERE name = '__drizzle_migrations'");
  if (table.rows.length === 0) return null;
  const newest = await client.execute("SELECT max(created_at) AS newest FROM __drizzle_migrations");
  return Number(newest.rows[0]?.newest ?? 0);
}
