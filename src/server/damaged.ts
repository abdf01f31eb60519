import type { Answer } from "@/contract";
import { DamagedError, damagedRows, KINDS, type Kind } from "@/db";
import { parseJson } from "@/core/text";
import { no, yes } from "./answer";
import type { Desk } from "./desk";

export const DAMAGED_KINDS = KINDS;

/** Documents that do not read any more, with what is wrong and the text as it stands. */
export const damagedDocuments = async (desk: Desk) => damagedRows.all(desk.db);

/** How many call for a person: those that were met and that nobody has set aside. */
export const damagedCount = async (desk: Desk): Promise<number> => damagedRows.count(desk.db);

/** The text of one document as it stands in the database, for a look outside of Derrick. */
export const damagedText = async (desk: Desk, kind: Kind, id: string): Promise<string | null> =>
  damagedRows.textOfOne(desk.db, kind, id);

/** Puts a text in the place of a damaged document when it is sound; otherwise its problems are told and nothing changes. */
export async function repairDamaged(desk: Desk, kind: Kind, id: string, text: string): Promise<Answer<null>> {
  const json = parseJson(text);
  if (!json.ok) return { ok: false, problems: json.problems };
  const done = await desk.write((tx) => damagedRows.repair(tx, kind, id, json.value, desk.stamp()));
  return done ? yes(null) : no("This document no longer exists.");
}

export async function setDamagedAside(desk: Desk, kind: Kind, id: string): Promise<Answer<null>> {
  await desk.write((tx) => damagedRows.putAside(tx, kind, id, desk.actor, desk.now()));
  return yes(null);
}

/** The document that a failure is about, when it is about a damaged one. */
export function damagedIn(error: unknown): { kind: Kind; id: string } | null {
  for (let at = error; at instanceof Error; at = at.cause) if (at instanceof DamagedError) return at;
  return null;
}
