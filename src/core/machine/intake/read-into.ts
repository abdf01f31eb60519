import type { MachineDocument } from "../facts/document";
import { readTexts, type Intake, type NamedText } from "./intake";
import { mergeReadings } from "./merge";
import type { FactChange } from "./merging";

/** Texts as they were read, and a machine's document with what they tell. */
export interface ReadInto {
  intake: Intake;
  document: MachineDocument;
  changes: FactChange[];
  remarks: string[];
}

/** Reads texts against a machine. Its facts are of the time that a bundle was taken, where one says so; never later than `at`. */
export function readInto(document: MachineDocument, texts: readonly NamedText[], at: string): ReadInto {
  const intake = readTexts(texts);
  const taken = intake.takenAt && intake.takenAt < at ? intake.takenAt : at;
  return { intake, ...mergeReadings(document, intake.readings, taken) };
}
