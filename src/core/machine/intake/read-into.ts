import type { MachineDocument } from "../facts/document";
import type { Facts } from "../facts/facts";
import { readingTexts, type Intake, type NamedText, type Rejected } from "./intake";
import { mergeReadings } from "./merge";
import type { FactChange } from "./merging";

/** Texts as they were read, and a machine's document with what they tell. */
export interface ReadInto {
  intake: Intake;
  document: MachineDocument;
  changes: FactChange[];
  remarks: string[];
}

/** What the server asks of the thread that reads: all of it, or what a person is shown before anything is taken over. */
export interface IntakeAsk {
  document: MachineDocument;
  texts: readonly NamedText[];
  at: string;
  toShow: boolean;
}

/** What that thread says: how many characters are read, and in the end what they tell. */
export type IntakeWord = { done: number } | { read: ReadInto | ReadToShow };

/** What a person is shown of a reading. */
export interface ReadToShow {
  understood: { tool: string; from: string; words: string; ignored: string[]; warnings: string[] }[];
  rejected: Rejected[];
  remarks: string[];
  hostName: string | null;
  facts: Facts;
  /** The first of them: nobody looks through more, and a browser that draws a hundred thousand lines stands still. */
  changes: FactChange[];
  changeCount: number;
}

const MOST_SHOWN = 1000;

export const readToShow = ({ intake, document, changes, remarks }: ReadInto): ReadToShow => ({
  understood: intake.readings.map((r) => ({
    tool: r.tool,
    from: r.from,
    words: r.reading.understood,
    ignored: r.reading.ignored,
    warnings: r.warnings.map((w) => w.message),
  })),
  rejected: intake.rejected,
  remarks: [...intake.remarks, ...remarks],
  hostName: intake.hostName ?? document.facts.system?.hostName ?? null,
  facts: document.facts,
  changes: changes.slice(0, MOST_SHOWN),
  changeCount: changes.length,
});

/**
 * Reads texts against a machine; between the tools it tells how many characters are done. Its facts are of the time that a
 * bundle was taken, where one says so; never later than `at`.
 */
export function* readingInto({
  document,
  texts,
  at,
}: Omit<IntakeAsk, "toShow">): Generator<number, ReadInto> {
  const intake = yield* readingTexts(texts);
  const taken = intake.takenAt && intake.takenAt < at ? intake.takenAt : at;
  return { intake, ...mergeReadings(document, intake.readings, taken) };
}
