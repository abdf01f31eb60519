import { readFileSync } from "node:fs";
import { join } from "node:path";
import { createClient, type Client } from "@libsql/client";
import { drizzle, type LibSQLDatabase } from "drizzle-orm/libsql";
import { migrate } from "drizzle-orm/libsql/migrator";
import { copyBeforeUpgrade } from "./copies";
import { patient } from "./patient";
import * as schema from "./schema";
import { troubleOf } from "./trouble";

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

export interface Waiting {
  /** How long a call waits for its turn and for another program to let go of the file, in milliseconds. */
  lockedMilliseconds: number;
  /** How long one call to a database server may take, in milliseconds. Calls to a file cannot be cut short. */
  callMilliseconds: number;
}
const WAITING: Waiting = { lockedMilliseconds: 12_000, callMilliseconds: 10_000 };

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
  waiting: Partial<Waiting> = {},
): Promise<Database> {
  const local = url.startsWith("file:");
  const { lockedMilliseconds, callMilliseconds } = { ...WAITING, ...waiting };
  const soon = (): number => performance.now() + lockedMilliseconds;
  const connect = (lockedUntil: () => number): Client =>
    patient(createClient({ url, authToken, timeout: 0 }), {
      lockedUntil,
      callMilliseconds: local ? null : callMilliseconds,
    });
  const client = connect(soon);
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
  // A write's patience begins when it is asked for, not when its turn comes: a lock that lasts must not make a queue whose
  // every place waits anew.
  let turnUntil: number | null = null;
  const writer = connect(() => turnUntil ?? soon());
  const turn = async <T>(until: number, work: () => Promise<T>): Promise<T> => {
    turnUntil = until;
    try {
      return await work();
    } finally {
      turnUntil = null;
    }
  };
  return opened(client, writer, { local, upgradedFrom, soon, turn });
}

const PAUSE_MILLISECONDS = 100;

/**
 * A server says that it is locked only with the first statement of a transaction; nothing was done then, so all of it is
 * done again, until its patience ends.
 */
async function unlessLocked<T>(until: number, work: () => Promise<T>): Promise<T> {
  for (;;) {
    try {
      return await work();
    } catch (error) {
      if (troubleOf(error)?.kind !== "locked" || performance.now() > until) throw error;
      await new Promise((resolve) => setTimeout(resolve, PAUSE_MILLISECONDS));
    }
  }
}

/** Reading and writing have connections of their own, so that one which a foreign lock has spoilt can be dropped. */
function opened(
  reader: Client,
  writer: Client,
  {
    local,
    upgradedFrom,
    soon,
    turn,
  }: {
    local: boolean;
    upgradedFrom: string | null;
    soon(): number;
    turn<T>(until: number, work: () => Promise<T>): Promise<T>;
  },
): Database {
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
      const until = soon();
      const done = last.then(() => turn(until, () => unlessLocked(until, () => writing.transaction(work))));
      last = done.then(checkpointSoon, () => undefined);
      return done;
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
  `The database ${url} was written by a later version of Derrick, so nothing was opened or changed. Start the later version, or set another database in DERRICK_DB_URL.`;

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
