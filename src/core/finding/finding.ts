import { z } from "zod";

/** The stages of a build in working order carry letters, like the zones of a drawing. */
export const ZONES = {
  A: "Machine",
  B: "Image",
  C: "Boot",
  D: "Storage",
  E: "Network",
  F: "Answers",
  G: "Rehearse",
  H: "Run",
  I: "Settle in",
  J: "Accept",
  K: "Hand over",
} as const;

export const zoneSchema = z.enum(["A", "B", "C", "D", "E", "F", "G", "H", "I", "J", "K"]);
export type Zone = z.infer<typeof zoneSchema>;

export const severitySchema = z.enum(["stop", "caution", "note"]);
export type Severity = z.infer<typeof severitySchema>;

/** One of the two facts that clash, and where it comes from. */
export interface Evidence {
  what: string;
  value: string;
  source: string;
}

/** What a check found: where, how bad, and the facts that its sentence is made of. */
export interface Hit {
  severity: Severity;
  /** Path of the field that it is about, such as "network.address". */
  at: string;
  /** Tells apart two hits of one check; the drive or account that it is about, say. */
  subject?: string;
  facts: Record<string, string>;
  evidence: Evidence[];
  /** A stop that protects data: no reason sets it aside. */
  protectsData?: boolean;
}

/** A pure rule over a context. Its words stand in the messages of its domain, under the same code. */
export interface Check<Context> {
  code: string;
  zone: Zone;
  run(context: Context): Hit[];
}

/** The words of one check; {fact} stands for a fact of the hit. `why` is for the reader of docs/checks.md. */
export interface Message {
  title: string;
  why: string;
  says: string;
  remedy: string;
}

export const message = (title: string, says: string, remedy: string, why: string): Message => ({
  title,
  says,
  remedy,
  why,
});

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
  reason: z.string().trim().min(8, "say why in a few words: the reason goes on the record"),
  by: z.string().min(1),
  at: z.iso.datetime(),
  /** What the finding was found from when it was set aside; null in waivers from before that was kept. */
  basis: z.string().nullable().default(null),
});
export type Waiver = z.infer<typeof waiverSchema>;
