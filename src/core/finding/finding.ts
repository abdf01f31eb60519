import { z } from "zod";

/**
 * Zones of a sheet carry letters, like those of a drawing. Which letter is which stage is the sheet's to say: its registry
 * of stages names them in working order.
 */
export const zoneSchema = z.enum([..."ABCDEFGHIJKLMNOPQRSTUVWXYZ"] as [Letter, ...Letter[]]);
type Letter =
  | "A"
  | "B"
  | "C"
  | "D"
  | "E"
  | "F"
  | "G"
  | "H"
  | "I"
  | "J"
  | "K"
  | "L"
  | "M"
  | "N"
  | "O"
  | "P"
  | "Q"
  | "R"
  | "S"
  | "T"
  | "U"
  | "V"
  | "W"
  | "X"
  | "Y"
  | "Z";
export type Zone = z.infer<typeof zoneSchema>;

export const severitySchema = z.enum(["stop", "caution", "note"]);
export type Severity = z.infer<typeof severitySchema>;

/** One of the two facts that clash, and where it comes from. */
export interface Evidence {
  what: string;
  value: string;
  source: string;
}

/** Facts by their names: a value as it stands, or the code of a phrase of the message. */
export type Facts = Readonly<Record<string, string | undefined>>;

/** What a check found: where, how bad, and the facts that its sentence is made of. */
export interface Hit<At extends string = string, Told = Facts> {
  severity: Severity;
  /** Path of the field that it is about, such as "network.address". */
  at: At;
  /** Tells apart two hits of one check; the drive or account that it is about, say. */
  subject?: string;
  facts: Told;
  evidence: Evidence[];
  /** A stop that protects data: no reason sets it aside. */
  protectsData?: boolean;
}

/** A pure rule over a ground: the few facts that it may look at. Its words stand in the messages of its domain. */
export interface Check<Ground, At extends string = string> {
  code: string;
  zone: Zone;
  run(ground: Ground): Hit<At>[];
}

/** Texts for a fact that is told as a code: by the fact, then by the code. They may name other facts in braces. */
export type Phrases = Readonly<Record<string, Readonly<Record<string, string>>>>;

/** The words of one check; {fact} stands for a fact of the hit. `why` is for the reader of docs/checks.md. */
export interface Message<
  Says extends string = string,
  Remedy extends string = string,
  Worded extends Phrases = Phrases,
> {
  title: string;
  why: string;
  says: Says;
  remedy: Remedy;
  phrases: Worded;
}

export type Messages = Readonly<Record<string, Message>>;

export const message = <
  Says extends string,
  Remedy extends string,
  const Worded extends Phrases = Record<never, never>,
>(
  title: string,
  says: Says,
  remedy: Remedy,
  why: string,
  phrases?: Worded,
): Message<Says, Remedy, Worded> => ({ title, says, remedy, why, phrases: phrases ?? ({} as Worded) });

/** A hit in words, at its place. */
export interface Finding extends Omit<Hit, "facts" | "protectsData"> {
  /** What it was found from, in one text: a waiver holds as long as this stays the same. */
  basis: string;
  code: string;
  zone: Zone;
  title: string;
  says: string;
  remedy: string;
  waivable: boolean;
}

export const waiverSchema = z.object({
  /** code, or code:subject, of the finding that is set aside. */
  key: z.string().min(1),
  reason: z.string().trim().min(8, "enter a short reason; it is recorded"),
  by: z.string().min(1),
  at: z.iso.datetime(),
  /** What the finding was found from when it was set aside; null in waivers from before that was kept. */
  basis: z.string().nullable().default(null),
});
export type Waiver = z.infer<typeof waiverSchema>;
