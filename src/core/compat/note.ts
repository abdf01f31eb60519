import { z } from "zod";
import { defineDocument } from "../document";

const text = z.string().trim().max(400);

/** One attempt: what was changed and what happened, so that a dead end is found once. */
export const trialSchema = z.object({
  at: z.iso.datetime(),
  by: text,
  changed: text.min(1, "enter what was changed or tested"),
  expected: text.default(""),
  happened: text.min(1, "enter the result"),
  outcome: z.enum(["worked", "did not work", "unclear"]),
});

export const VERDICTS = ["works", "works with a condition", "does not work", "unknown"] as const;

/** What is known of one device or model under one OS profile: a verdict with its evidence. */
export const compatNoteSchema = z.object({
  schemaVersion: z.literal(1),
  subject: z.object({
    kind: z.enum(["pci", "usb", "machine model", "drive model"]),
    /** "f0a1:10d3" for PCI and USB, a model as the maker writes it for the others. */
    value: text.min(1, "enter the device or model"),
    /** How people call it. */
    name: text.default(""),
  }),
  profile: z.string().min(1, "choose the OS profile"),
  /** Empty: every version of the profile. "9" covers 9.0 and 9.1. */
  version: text.default(""),
  verdict: z.enum(VERDICTS),
  condition: text.default(""),
  evidence: text.default(""),
  by: text,
  at: z.iso.datetime(),
  trials: z.array(trialSchema).default([]),
});

export type CompatNote = z.infer<typeof compatNoteSchema>;
export const noteDocument = defineDocument({
  kind: "note",
  version: 1,
  schema: compatNoteSchema,
  upgrades: {},
});
export type Trial = z.infer<typeof trialSchema>;

/** A note wants a condition where its verdict speaks of one, and ids that look like ids. */
export function noteProblems(note: CompatNote): string[] {
  const { subject, verdict, condition } = note;
  return [
    ...((subject.kind === "pci" || subject.kind === "usb") && !/^[0-9a-f]{4}:[0-9a-f]{4}$/.test(subject.value)
      ? ["Enter an ID as vendor and device, four hexadecimal digits each, for example f0a1:10d3."]
      : []),
    ...(verdict === "works with a condition" && condition === ""
      ? ["Enter the condition under which it works."]
      : []),
  ];
}
