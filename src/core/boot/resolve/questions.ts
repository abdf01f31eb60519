/**
 * What a resolution had to take for granted. Points are those in which firmwares differ: the first end is what was
 * measured. Unknowns are facts that nobody has read.
 */
export const QUESTIONS = {
  "second disk": {
    kind: "point",
    yes: "this firmware tries further disks when the first does not start",
    no: "this firmware tries one disk only",
  },
  "own entries": {
    kind: "point",
    yes: "this firmware adds every device to its list by itself",
    no: "this firmware keeps to the list it has",
  },
  "removable first": {
    kind: "point",
    yes: "a new list begins with removable media",
    no: "a new list begins with fixed drives",
  },
  "fallback of a lost entry": {
    kind: "point",
    yes: "this firmware looks for the fallback loader where an entry's file is gone",
    no: "this firmware goes on where an entry's file is gone",
  },
  "return ends": {
    kind: "point",
    yes: "a loader that comes back ends in the set-up pages",
    no: "this firmware goes on when a loader comes back",
  },
  present: { kind: "unknown", yes: "{device} is there", no: "{device} is not there" },
  seen: { kind: "unknown", yes: "{device} is enabled", no: "{device} is not enabled" },
  "starts something": {
    kind: "unknown",
    yes: "something that starts stands on {device}",
    no: "nothing that starts stands on {device}",
  },
  carries: {
    kind: "unknown",
    yes: "{device} carries the partition that {entry} names",
    no: "{device} does not carry the partition that {entry} names",
  },
  "has the file": { kind: "unknown", yes: "{file} is on {device}", no: "{file} is not on {device}" },
  "secure boot": { kind: "unknown", yes: "secure boot is on", no: "secure boot is off" },
  signed: { kind: "unknown", yes: "{file} is signed by a key of this firmware", no: "{file} is not signed" },
  answers: {
    kind: "unknown",
    yes: "the network of {device} answers with something to start",
    no: "the network of {device} answers with nothing to start",
  },
  compatibility: {
    kind: "unknown",
    yes: "legacy support is switched on",
    no: "legacy support is switched off",
  },
} as const satisfies Record<string, { kind: "point" | "unknown"; yes: string; no: string }>;

export type QuestionCode = keyof typeof QUESTIONS;

export interface Question {
  code: QuestionCode;
  /** What it is about, by its id and by its name; empty for the firmware itself. */
  about: string;
  facts: Readonly<Record<string, string>>;
  /** What was taken for granted. */
  taken: boolean;
}

const keyOf = (code: QuestionCode, about: string): string => (about ? `${code} ${about}` : code);

/** Answers what is not known with what is likely, and remembers what was asked. */
export class Oracle {
  readonly asked = new Map<string, Question>();
  /** `other` is one question with the answer that it has in this walk. */
  constructor(private readonly other: Question | null = null) {}

  /** `likely`, unless this is the question that is answered otherwise. */
  ask(code: QuestionCode, likely: boolean, about = "", facts: Question["facts"] = {}): boolean {
    const key = keyOf(code, about);
    const known = this.asked.get(key);
    if (known) return known.taken;
    const isOther = this.other !== null && keyOf(this.other.code, this.other.about) === key;
    const taken = isOther ? this.other!.taken : likely;
    this.asked.set(key, { code, about, facts, taken });
    return taken;
  }
}
