import type { Database, Db, Stamp } from "@/db";
import { database, now } from "./database";
import { nudge } from "./feed";
import { newId } from "./ids";

/**
 * What a use case works at, its first argument: the database, the one queue of writes, the clock, new ids, and the
 * person under whose name everything is written. A use case takes none of these from anywhere else.
 */
export interface Desk {
  db: Db;
  write: Database["write"];
  snapshot: Database["snapshot"];
  now(): string;
  /** Who writes, and when. */
  stamp(): Stamp;
  newId: typeof newId;
  actor: string;
}

/** The desk of this installation for one person or program. */
export async function deskOf(actor: string): Promise<Desk> {
  const { db, write: writing, snapshot } = await database();
  const write: Desk["write"] = async (work) => {
    const done = await writing(work);
    nudge();
    return done;
  };
  return { db, write, snapshot, now, newId, actor, stamp: () => ({ at: now(), by: actor }) };
}
