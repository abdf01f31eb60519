import type { Attempt, End } from "./attempt";
import { walkLegacy } from "./legacy";
import type { BootMachine } from "./machine";
import { Oracle, type Question } from "./questions";
import { walkUefi } from "./uefi";

/** One way that a start can go: what is tried, one after the other, and where it ends. */
export interface BootPath {
  attempts: readonly Attempt[];
  end: End;
}

/** What the next start comes to, and where that depends on something that is not known. */
export interface Resolution extends BootPath {
  /** Each thing that was taken for granted and would end elsewhere if it were otherwise. */
  depends: readonly { question: Question; otherwise: BootPath }[];
}

const walk = (machine: BootMachine, oracle: Oracle): BootPath =>
  machine.mode === "uefi" ? walkUefi(machine, oracle) : walkLegacy(machine, oracle);

/** Two starts end alike when the same thing runs from the same device. */
export function endsAlike(a: End, b: End): boolean {
  const what = (end: End) =>
    "starts" in end ? `${end.device.id} ${end.starts}` : "device" in end ? end.device?.id : "";
  return a.kind === b.kind && what(a) === what(b);
}

/**
 * What a machine tries to start from, attempt by attempt, and where that ends. Pure and total: what is not known is taken as
 * likely, and each such thing is looked at from its other end as well.
 */
export function resolveBoot(machine: BootMachine): Resolution {
  const oracle = new Oracle();
  const path = walk(machine, oracle);
  const depends = [...oracle.asked.values()].flatMap((question) => {
    const otherwise = walk(machine, new Oracle({ ...question, taken: !question.taken }));
    return endsAlike(path.end, otherwise.end) ? [] : [{ question, otherwise }];
  });
  return { attempts: path.attempts, end: path.end, depends };
}

export { deviceMeant } from "./own-list";
export { walkUefi } from "./uefi";
export { walkLegacy } from "./legacy";
export { Oracle, QUESTIONS, type Question, type QuestionCode } from "./questions";
export { HIDDEN_WORDS, REASONS, type Outcome, type ReasonCode } from "./reasons";
export type { Attempt, End } from "./attempt";
export type * from "./machine";
