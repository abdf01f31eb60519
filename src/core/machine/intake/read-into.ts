import type { MachineDocument } from "../facts/document";
import { readingTexts, type Intake, type NamedText } from "./intake";
import { mergeReadings } from "./merge";
import type { FactChange } from "./merging";

/** Texts as they were read, and a machine's document with what they tell. */
export interface ReadInto {
  intake: Intake;
  document: MachineDocument;
  changes: FactChange[];
  remarks: string[];
}

/** What the server asks of the thread that reads. */
export interface IntakeAsk {
  document: MachineDocument;
  texts: readonly NamedText[];
  at: string;
}

/** What that thread says: how many characters are read, and in the end what they tell. */
export type IntakeWord = { done: number } | { read: ReadInto };

/**
 * Reads texts against a machine; between the tools it tells how many characters are done. Its facts are of the time that a
 * bundle was taken, where one says so; never later than `at`.
 */
export function* readingInto({ document, texts, at }: IntakeAsk): Generator<number, ReadInto> {
  const intake = yield* readingTexts(texts);
  const taken = intake.takenAt && intake.takenAt < at ? intake.takenAt : at;
  return { intake, ...mergeReadings(document, intake.readings, taken) };
}
