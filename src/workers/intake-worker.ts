import { parentPort } from "node:worker_threads";
import { readInto, type MachineDocument, type NamedText } from "../core/machine";

/** What the server asks of this thread: one reading at a time. */
export interface IntakeAsk {
  document: MachineDocument;
  texts: readonly NamedText[];
  at: string;
}

parentPort?.on("message", ({ document, texts, at }: IntakeAsk) => {
  parentPort?.postMessage(readInto(document, texts, at));
});
