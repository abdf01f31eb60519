import { z } from "zod";
import { sheetSchema, stepSchema } from "../build";
import { acceptanceLineSchema, expectationSchema } from "../verify";

const by = z.string().min(1).max(80);
const stepId = z.string().min(1);
const words = z.string().trim().min(1, "write a few words").max(4000);

const guardAnswered = z.object({
  kind: z.literal("guard"),
  step: stepId,
  typed: z.string(),
  verdict: z.enum(["passed", "other drive", "left-alone drive"]),
  names: z.string(),
  by,
});
const asExpected = z.object({ kind: z.literal("as expected"), step: stepId, by });
const differs = z.object({
  kind: z.literal("differs"),
  step: stepId,
  seen: words,
  decision: z.enum(["go on", "go back", "stop"]),
  by,
});
const skipped = z.object({ kind: z.literal("skipped"), step: stepId, reason: words, by });
const note = z.object({ kind: z.literal("note"), step: stepId.nullable(), text: words, by });
const reading = z.object({
  kind: z.literal("reading"),
  step: stepId.nullable(),
  what: words,
  value: words,
  by,
});
const corrected = z.object({
  kind: z.literal("corrected"),
  seq: z.number().int().positive(),
  text: words,
  by,
});
const timer = z.object({ kind: z.literal("timer"), step: stepId, by });
const resumed = z.object({ kind: z.literal("resumed"), reason: words, by });
const accepted = z.object({
  kind: z.literal("accepted"),
  from: z.string(),
  lines: z.array(acceptanceLineSchema),
  by,
});
const handedOver = z.object({ kind: z.literal("handed over"), to: words, by });

/** What happened, as it is kept. Nothing is rewritten: a mistake is corrected by a later event. */
export const runEventSchema = z.discriminatedUnion("kind", [
  z.object({ kind: z.literal("started"), by }),
  guardAnswered,
  asExpected,
  differs,
  skipped,
  note,
  reading,
  corrected,
  timer,
  resumed,
  accepted,
  handedOver,
]);
export type RunEvent = z.infer<typeof runEventSchema>;

/** What a person asks for. A guard's verdict and an acceptance are worked out by the core, never sent. */
export const runCommandSchema = z.discriminatedUnion("kind", [
  z.object({ kind: z.literal("guard"), step: stepId, typed: z.string().max(200), by }),
  asExpected,
  differs,
  skipped,
  note,
  reading,
  corrected,
  timer,
  resumed,
  handedOver,
]);
export type RunCommand = z.infer<typeof runCommandSchema>;

/** An event in its place: numbers count from 1 without gaps; the key tells a repeated message from a new one. */
export const loggedEventSchema = z.object({
  seq: z.number().int().positive(),
  at: z.iso.datetime(),
  key: z.string(),
  event: runEventSchema,
});
export type LoggedEvent = z.infer<typeof loggedEventSchema>;

/** What a run carries out: frozen when it starts, so that a later edit of the sheet cannot change what was done. */
export const runPlanSchema = z.object({
  schemaVersion: z.literal(1),
  number: z.string(),
  revision: z.string(),
  subject: z.string(),
  machineName: z.string(),
  machineLine: z.string(),
  /** Known defects of the machine at the start, shown beside every result. */
  defects: z.array(z.string()).default([]),
  siteName: z.string(),
  timeZone: z.string(),
  imageName: z.string(),
  imageCheck: z.string(),
  profileName: z.string(),
  management: z.string(),
  passwordRule: z.string(),
  sheet: sheetSchema,
  steps: z.array(stepSchema),
  expectations: z.array(expectationSchema),
  findings: z.array(
    z.object({
      label: z.string(),
      severity: z.string(),
      title: z.string(),
      says: z.string(),
      at: z.string(),
      waiver: z.object({ reason: z.string(), by: z.string(), at: z.string() }).nullable(),
    }),
  ),
});
export type RunPlan = z.infer<typeof runPlanSchema>;
