import type { Gap, IntentPath } from "../intent";

/** A line of an answer file, with the field of the sheet that it comes from; null for what the format itself needs. */
export interface AnswerLine {
  text: string;
  from: IntentPath | null;
}

/** An answer file; what its format cannot carry is done by hand, with the field that it stands in. */
export interface AnswerFile {
  name: string;
  lines: AnswerLine[];
  byHand: Gap[];
}

/** All of its text; every line ends. */
export const textOf = ({ lines }: Pick<AnswerFile, "lines">): string =>
  lines.map(({ text }) => `${text}\n`).join("");

/** Lines of one field. */
export const linesFrom = (from: IntentPath | null, ...texts: string[]): AnswerLine[] =>
  texts.map((text) => ({ text, from }));
