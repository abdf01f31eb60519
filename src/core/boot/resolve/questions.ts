/**
 * What a resolution had to take for granted. Points are those in which firmwares differ: the first end is what was
 * measured. Unknowns are facts that nobody has read.
 */
export const QUESTIONS = {
  "second disk": {
    kind: "point",
    yes: "this firmware tries further disks if the first does not boot",
    no: "this firmware tries one disk only",
  },
  "own entries": {
    kind: "point",
    yes: "this firmware adds every device to its boot entries",
    no: "this firmware does not add boot entries",
  },
  "removable first": {
    kind: "point",
    yes: "a new boot order begins with removable media",
    no: "a new boot order begins with fixed drives",
  },
  "fallback of a lost entry": {
    kind: "point",
    yes: "this firmware uses the fallback loader if the file of an entry is missing",
    no: "this firmware continues with the next entry if the file of an entry is missing",
  },
  "return ends": {
    kind: "point",
    yes: "a loader that returns ends in the firmware setup",
    no: "this firmware continues with the next entry if a loader returns",
  },
  present: { kind: "unknown", yes: "{device} is present", no: "{device} is missing" },
  seen: { kind: "unknown", yes: "{device} is enabled", no: "{device} is disabled" },
  "starts something": {
    kind: "unknown",
    yes: "{device} is bootable",
    no: "{device} is not bootable",
  },
  carries: {
    kind: "unknown",
    yes: "{device} has the partition that {entry} names",
    no: "{device} does not have the partition that {entry} names",
  },
  "has the file": { kind: "unknown", yes: "{file} is on {device}", no: "{file} is not on {device}" },
  "secure boot": { kind: "unknown", yes: "Secure Boot is on", no: "Secure Boot is off" },
  signed: { kind: "unknown", yes: "{file} is signed by a key of this firmware", no: "{file} is not signed" },
  answers: {
    kind: "unknown",
    yes: "the network of {device} offers a boot file",
    no: "the network of {device} offers no boot file",
  },
  compatibility: {
    kind: "unknown",
    yes: "legacy support is on",
    no: "legacy support is off",
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
