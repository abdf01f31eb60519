import { linePairs, shortened, type AnswerFileOfSheet, type LinePair } from "@/core/answers";
import { applyEdits, derive, invertEdits, type Sheet } from "@/core/sheet";
import { buildRows } from "@/db";
import type { Desk } from "./desk";
import { answersShown, shownAnswer } from "./scripts";
import { sourcesOf } from "./sources";

/** An answer file beside another: what differs with what stands around it, or why nothing can be compared. */
export interface Beside {
  what: string;
  pairs: (LinePair | null)[] | null;
  why: string;
}

/** What an answer file can be laid beside: earlier letters of its own sheet, and other sheets. */
export interface BesideChoice {
  value: string;
  words: string;
}

const LETTER = "rev-";

export async function besideChoices(desk: Desk, id: string): Promise<BesideChoice[]> {
  const [history, builds] = await Promise.all([buildRows.history(desk.db, id), buildRows.listed(desk.db)]);
  return [
    ...history.flatMap(({ letter }) =>
      letter === null ? [] : [{ value: LETTER + letter, words: `this sheet at revision ${letter}` }],
    ),
    ...builds
      .filter((b) => b.id !== id)
      .map(({ id: value, number, subject }) => ({ value, words: `${number} ${subject}` })),
  ];
}

/** A sheet as it was when a letter was issued; null where its history does not reach so far. */
async function sheetAt({ db }: Desk, id: string, sheet: Sheet, letter: string): Promise<Sheet | null> {
  const history = await buildRows.history(db, id);
  const at = history.findIndex((row) => row.letter === letter);
  if (at < 0) return null;
  let then = sheet;
  for (const { edits } of history.slice(0, at)) {
    const before = applyEdits(then, invertEdits(edits));
    if (!before.ok) return null;
    then = before.value;
  }
  return then;
}

const OPEN = "there is no answer file: values are missing, or the OS family reads none";

/** The answer file of a sheet beside another one; null when one of them is not there. */
export async function answersBeside(desk: Desk, id: string, beside: string): Promise<Beside | null> {
  const here = await answersShown(desk, id);
  const build = await buildRows.one(desk.db, id);
  if (!here || !build) return null;
  const letter = beside.startsWith(LETTER) ? beside.slice(LETTER.length) : null;
  let there: AnswerFileOfSheet | null = null;
  let what = `revision ${letter}`;
  if (letter !== null) {
    const sheet = await sheetAt(desk, id, build.sheet, letter);
    if (!sheet) return null;
    there = await shownAnswer(desk, id, derive(await sourcesOf(desk, id, sheet)));
  } else {
    const other = await answersShown(desk, beside);
    if (!other) return null;
    there = other.answer;
    what = other.number;
  }
  if (here.answer.kind !== "file") return { what, pairs: null, why: `This sheet: ${OPEN}.` };
  if (there.kind !== "file") return { what, pairs: null, why: `${what}: ${OPEN}.` };
  const [own, other] = [here.answer.file, there.file].map(({ name }) => name.slice(name.lastIndexOf(".")));
  if (own !== other)
    return { what, pairs: null, why: `${what} has a file of another type (${other}; here ${own}).` };
  return { what, pairs: shortened(linePairs(here.answer.file.lines, there.file.lines)), why: "" };
}
