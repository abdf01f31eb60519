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

/** A desk over a database. */
export const deskOver = ({ db, write, snapshot }: Database, actor: string): Desk => ({
  ...{ db, write, snapshot, now, newId, actor },
  stamp: () => ({ at: now(), by: actor }),
});

/** The desk of this installation for one person or program. */
export async function deskOf(actor: string): Promise<Desk> {
  const opened = await database();
  const write: Desk["write"] = async (work) => {
    const done = await opened.write(work);
    nudge();
    return done;
  };
  return deskOver({ ...opened, write }, actor);
}
