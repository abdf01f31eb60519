import { DamagedError, damagedRows, KINDS, type Kind } from "@/db";
import { parseJson } from "@/core/text";
import { no, yes, type Answer } from "./answer";
import { database, now } from "./database";

export const DAMAGED_KINDS = KINDS;

/** Documents that do not read any more, with what is wrong and the text as it stands. */
export const damagedDocuments = async () => damagedRows.all((await database()).db);

/** How many call for a person: those that were met and that nobody has set aside. */
export const damagedCount = async (): Promise<number> => damagedRows.count((await database()).db);

/** The text of one document as it stands in the database, for a look outside of Derrick. */
export const damagedText = async (kind: Kind, id: string): Promise<string | null> =>
  damagedRows.textOfOne((await database()).db, kind, id);

/** Puts a text in the place of a damaged document when it is sound; otherwise its problems are told and nothing changes. */
export async function repairDamaged(kind: Kind, id: string, text: string): Promise<Answer<null>> {
  const json = parseJson(text);
  if (!json.ok) return { ok: false, problems: json.problems };
  const done = await (await database()).write((tx) => damagedRows.repair(tx, kind, id, json.value, now()));
  return done ? yes(null) : no("This document is no longer there.");
}

export async function setDamagedAside(kind: Kind, id: string, by: string): Promise<Answer<null>> {
  await (await database()).write((tx) => damagedRows.putAside(tx, kind, id, by, now()));
  return yes(null);
}

/** The document that a failure is about, when it is about a damaged one. */
export function damagedIn(error: unknown): { kind: Kind; id: string } | null {
  for (let at = error; at instanceof Error; at = at.cause) if (at instanceof DamagedError) return at;
  return null;
}
