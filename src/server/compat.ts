import type { Answer } from "@/contract";
import { distinct } from "@/core/claims";
import {
  claimKindOf,
  compatNoteSchema,
  meets,
  noteProblems,
  trialSchema,
  type CompatNote,
  type Trial,
} from "@/core/compat";
import { claimRows, compatRows } from "@/db";
import { no, STALE, yes } from "./answer";
import type { Desk } from "./desk";

export const listNotes = async (desk: Desk) => compatRows.all(desk.db);

const refused = (issues: { path: PropertyKey[]; message: string }[]) =>
  no(...issues.slice(0, 4).map((i) => `${i.path.join(" ")}: ${i.message}`));

export async function addNote(
  desk: Desk,
  values: Omit<CompatNote, "schemaVersion" | "by" | "at" | "trials">,
): Promise<Answer<string>> {
  const note = compatNoteSchema.safeParse({
    schemaVersion: 1,
    ...values,
    by: desk.actor,
    at: desk.now(),
    trials: [],
  });
  if (!note.success) return refused(note.error.issues);
  const problems = noteProblems(note.data);
  if (problems.length > 0) return no(...problems);
  const id = desk.newId("n");
  await desk.write((tx) => compatRows.insert(tx, id, note.data, desk.stamp()));
  return yes(id);
}

async function changeNote(
  desk: Desk,
  id: string,
  version: number,
  step: (note: CompatNote) => Answer<CompatNote>,
): Promise<Answer<number>> {
  const { db, write } = desk;
  const row = await compatRows.one(db, id);
  if (!row) return no("This note no longer exists.");
  const next = step(row.note);
  if (!next.ok) return next;
  const saved = await write((tx) => compatRows.update(tx, id, version, next.value, desk.stamp()));
  return saved ? yes(version + 1) : no(STALE);
}

/** A later verdict on the same part: it carries the day and the name of who gave it. */
export const judgeNote = (
  desk: Desk,
  id: string,
  version: number,
  part: Pick<CompatNote, "verdict" | "condition" | "evidence">,
): Promise<Answer<number>> =>
  changeNote(desk, id, version, (note) => {
    const next = compatNoteSchema.safeParse({ ...note, ...part, by: desk.actor, at: desk.now() });
    if (!next.success) return refused(next.error.issues);
    const problems = noteProblems(next.data);
    return problems.length > 0 ? no(...problems) : yes(next.data);
  });

/** Logs an attempt; the verdict stays a person's to change. */
export const addTrial = (
  desk: Desk,
  id: string,
  version: number,
  trial: Omit<Trial, "at" | "by">,
): Promise<Answer<number>> =>
  changeNote(desk, id, version, (note) => {
    const read = trialSchema.safeParse({ ...trial, at: desk.now(), by: desk.actor });
    return read.success ? yes({ ...note, trials: [...note.trials, read.data] }) : refused(read.error.issues);
  });

/** Notes with the machines that hold their part now, whatever is built on them. */
export async function notesWithMachines(desk: Desk) {
  const { db } = desk;
  const rows = await compatRows.all(db);
  const kinds = new Set(rows.map((r) => claimKindOf(r.note.subject)));
  const keys = await claimRows.keysOf(db, [...kinds]);
  const wanted = rows.map(({ note }) => keys.filter((claim) => meets(note.subject, claim)));
  const owners = await claimRows.machinesWith(db, distinct(wanted.flat()));
  return rows.map((row, i) => ({
    ...row,
    machines: [...new Set(wanted[i]!.flatMap((c) => owners.get(`${c.kind} ${c.key}`) ?? []))].sort(),
  }));
}
