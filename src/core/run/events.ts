import { z } from "zod";
import { READ_BACK } from "../image";
import { VERBS } from "../work";
import { acceptanceLineSchema } from "../verify";

const by = z.string().min(1).max(80);
const stepId = z.string().min(1);
const words = z.string().trim().min(1, "enter a few words").max(4000);

const guardTyped = z.object({ kind: z.literal("guard"), step: stepId, typed: z.string().max(200) });
const readBackTyped = z.object({
  kind: z.literal("read back"),
  step: stepId,
  /** What the console is about to do, as it was read there; what the step does not ask for is absent. */
  verb: z.enum(VERBS).optional(),
  version: z.string().max(80).optional(),
  size: z.string().max(40).optional(),
});
const asExpected = z.object({
  kind: z.literal("as expected"),
  step: stepId,
  /** What the step asked to be written down. */
  words: z.string().trim().max(400).optional(),
});
const differs = z.object({
  kind: z.literal("differs"),
  step: stepId,
  seen: words,
  decision: z.enum(["go on", "go back", "stop"]),
});
const skipped = z.object({ kind: z.literal("skipped"), step: stepId, reason: words });
const note = z.object({ kind: z.literal("note"), step: stepId.nullable(), text: words });
const reading = z.object({ kind: z.literal("reading"), step: stepId.nullable(), what: words, value: words });
const corrected = z.object({ kind: z.literal("corrected"), seq: z.number().int().positive(), text: words });
const timer = z.object({ kind: z.literal("timer"), step: stepId });
const resumed = z.object({ kind: z.literal("resumed"), reason: words });
/** A person settles a line of the acceptance: by what they saw with their own eyes, or by taking it as it is. */
const settled = z.object({
  kind: z.literal("settled"),
  line: z.string().min(1),
  how: z.enum(["seen", "taken as it is"]),
  words,
});
const handedOver = z.object({ kind: z.literal("handed over"), to: words });

const signed = { by };

/** What happened, as it is kept. Nothing is rewritten: a mistake is corrected by a later event. */
export const runEventSchema = z.discriminatedUnion("kind", [
  z.object({ kind: z.literal("started"), by }),
  guardTyped.extend({
    verdict: z.enum(["passed", "other drive", "left-alone drive"]),
    /** The drive that was named; empty in runs from before a target could be several. */
    drive: z.string().default(""),
    names: z.string(),
    by,
  }),
  readBackTyped.extend({
    /** What was typed and is not what the plan says; empty where all of it is. */
    differs: z.array(z.enum(READ_BACK)),
    by,
  }),
  asExpected.extend(signed),
  differs.extend(signed),
  skipped.extend(signed),
  note.extend(signed),
  reading.extend(signed),
  corrected.extend(signed),
  timer.extend(signed),
  resumed.extend(signed),
  z.object({ kind: z.literal("accepted"), from: z.string(), lines: z.array(acceptanceLineSchema), by }),
  /** The found value stands with it: when another reading finds something else, the line is open again. */
  settled.extend({ found: z.string(), by }),
  handedOver.extend(signed),
  /** An entry that does not read any more, as it stands there; see damaged.ts. It is never written. */
  z.object({ kind: z.literal("damaged"), why: z.string(), text: z.string(), by }),
]);
export type RunEvent = z.infer<typeof runEventSchema>;

/**
 * What a person asks for. Who asks, a guard's verdict and an acceptance are put in by the server and the core, never
 * sent.
 */
export const runCommandSchema = z.discriminatedUnion("kind", [
  guardTyped,
  readBackTyped,
  asExpected,
  differs,
  skipped,
  note,
  reading,
  corrected,
  timer,
  resumed,
  settled,
  handedOver,
]);
export type RunCommand = z.infer<typeof runCommandSchema>;

/** An event in its place: numbers count from 1 without gaps; the key tells a repeated message from a new one. */
export const loggedEventSchema = z.object({
  seq: z.number().int().positive(),
  /** When it arrived, by the server's clock. */
  at: z.iso.datetime(),
  /** When the answer was given, where the browser kept it because the server was away. */
  given: z.iso.datetime().optional(),
  key: z.string(),
  event: runEventSchema,
});
export type LoggedEvent = z.infer<typeof loggedEventSchema>;
