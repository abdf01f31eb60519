import type { Attempt, End } from "./attempt";
import { walkLegacy } from "./legacy";
import type { BootMachine } from "./machine";
import { listOf, type List } from "./own-list";
import { Oracle, type Question, type QuestionCode } from "./questions";
import { knownOf } from "./known";
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

/** What the list of a firmware depends on; all else is asked while it is walked. */
const CHANGES_LIST: readonly QuestionCode[] = ["present", "seen", "removable first"];

/** Walks a machine as often as there are questions; what it looks up is worked out once. */
function walker(machine: BootMachine): (oracle: Oracle, other?: QuestionCode) => BootPath {
  if (machine.mode === "legacy") return (oracle) => walkLegacy(machine, oracle);
  const known = knownOf(machine);
  let list: List | undefined;
  return (oracle, other) => {
    if (other && CHANGES_LIST.includes(other)) return walkUefi(known, oracle);
    list ??= listOf(known, oracle);
    return walkUefi(known, oracle, list);
  };
}

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
  const walk = walker(machine);
  const path = walk(oracle);
  const depends = [...oracle.asked.values()].flatMap((question) => {
    const otherwise = walk(new Oracle({ ...question, taken: !question.taken }), question.code);
    return endsAlike(path.end, otherwise.end) ? [] : [{ question, otherwise }];
  });
  return { attempts: path.attempts, end: path.end, depends };
}

export { deviceMeant, knownOf, mayCarry, standIn, type Known } from "./known";
export { listOf } from "./own-list";
export { FALLBACK } from "./loader";
export { walkUefi } from "./uefi";
export { walkLegacy } from "./legacy";
export { Oracle, QUESTIONS, type Question, type QuestionCode } from "./questions";
export { HIDDEN_WORDS, REASONS, type Outcome, type ReasonCode } from "./reasons";
export type { Attempt, End } from "./attempt";
export type * from "./machine";
