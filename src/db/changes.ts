import { and, asc, desc, eq, gt, max, sql } from "drizzle-orm";
import { z } from "zod";
import { editSchema, isBag, type Edit } from "@/core/document";
import type { Db, Tx } from "./client";
import { BrokenJson, type Kind } from "./document";
import { changes } from "./schema";

/** Who writes, and when: it stands in every change. */
export interface Stamp {
  at: string;
  by: string;
}

/** One write of one document, without what it changed. */
export interface Change extends Stamp {
  seq: number;
  kind: string;
  id: string;
  version: number;
}

export interface FullChange extends Change {
  edits: Edit[];
}

/**
 * What a write can be about: documents, what is added beside a machine (its id stands in the row then), and long work that
 * was asked for, has begun or is over.
 */
export type ChangedKind = Kind | "profile" | "reading" | "picture" | "job" | "secret" | "arming";

/** Values longer than this (in characters of JSON) are kept with their document and its imports only. */
const LONGEST_VALUE = 4000;

const short = (value: unknown): unknown => {
  const { length } = JSON.stringify(value) ?? "";
  return length > LONGEST_VALUE ? { characters: length } : value;
};

/** Whether a value was too long for the history, so that only its length is known. */
export const isShortened = ({ before, after }: Edit): boolean =>
  [before, after].some((v) => isBag(v) && Object.keys(v).join() === "characters");

/** Adds the row of a write, in its transaction. */
export async function add(
  tx: Tx,
  kind: ChangedKind,
  id: string,
  version: number,
  { at, by }: Stamp,
  edits: readonly Edit[] = [],
): Promise<void> {
  const kept = edits.map(({ path, before, after }) => ({ path, before: short(before), after: short(after) }));
  await tx.insert(changes).values({ at, by, kind, id, version, edits: kept });
}

/** Adds the rows of several writes whose fields nobody takes back. */
export async function addAll(
  tx: Tx,
  all: readonly (Omit<Change, "seq" | "kind"> & { kind: ChangedKind })[],
): Promise<void> {
  if (all.length > 0)
    await tx.run(sql`insert into changes (at, by, kind, id, version, edits)
      select value ->> 'at', value ->> 'by', value ->> 'kind', value ->> 'id', value ->> 'version', '[]'
      from json_each(${JSON.stringify(all)}) order by key`);
}

const LINE = {
  seq: changes.seq,
  at: changes.at,
  by: changes.by,
  kind: changes.kind,
  id: changes.id,
  version: changes.version,
};

/** The number of the last write; 0 before the first. */
export const last = async (db: Db | Tx): Promise<number> =>
  (await db.select({ last: max(changes.seq) }).from(changes))[0]?.last ?? 0;

/** Writes after one, the oldest first. */
export const since = (db: Db | Tx, seq: number, most: number): Promise<Change[]> =>
  db.select(LINE).from(changes).where(gt(changes.seq, seq)).orderBy(asc(changes.seq)).limit(most);

/** The history of one document, the newest first. */
export async function of(db: Db | Tx, kind: Kind, id: string, most = 200): Promise<FullChange[]> {
  const rows = await db
    .select({ ...LINE, edits: changes.edits })
    .from(changes)
    .where(and(eq(changes.kind, kind), eq(changes.id, id)))
    .orderBy(desc(changes.seq))
    .limit(most);
  return rows.map(({ edits, ...line }) => ({
    ...line,
    edits: edits instanceof BrokenJson ? [] : z.array(editSchema).catch([]).parse(edits),
  }));
}
