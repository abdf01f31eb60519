import { z } from "zod";
import { durationSchema, figureSchema, rateSampleSchema } from "../estimate";
import { zoneSchema } from "../finding";
import { checksumSchema, READ_BACK } from "../image";
import { effectSchema, stripSchema } from "./effects";

/** Guards of runs from before a target could be several drives: one drive, whose name still held the answer. */
const guardOf = (value: unknown): unknown =>
  typeof value === "object" && value !== null && "expect" in value && "target" in value
    ? {
        ...value,
        drives: [{ id: "", proof: value.expect, name: String(value.target).replace(/ …\S+?(?=,|$)/, "") }],
      }
    : value;

/**
 * What stands before a step that chooses or writes a drive: the operator types what the console shows of it. Nothing
 * but `proof` holds the answer, and that is never shown.
 */
export const guardSchema = z.preprocess(
  guardOf,
  z.object({
    /** The drives of which one must be named here, and not one that another guard of this group has had named. */
    drives: z
      .array(z.object({ id: z.string(), proof: z.string(), name: z.string(), holds: z.string().default("") }))
      .min(1),
    /** Guards of one screen, which name one drive each. */
    group: z.string().default(""),
    asks: z.string(),
    /** Drives that must not be named: typing one of these tails stops the run with the drive's name. */
    leaveAlone: z.array(z.object({ tail: z.string(), name: z.string(), holds: z.string() })),
  }),
);

/** What a console does to a machine, in the two words that installers have for it. */
export const VERBS = ["install", "upgrade"] as const;

/**
 * What stands before the key after which there is no way back: the operator types what the console is about to do, and it
 * is compared with the plan. None of it is shown.
 */
export const readBackSchema = z.object({
  asks: z.array(z.enum(READ_BACK)).min(1),
  verb: z.enum(VERBS),
  version: z.string(),
  /** Sizes of the drives of the target in bytes; the console may show any of them. */
  sizes: z.array(z.number().positive()),
});

/**
 * What the boot service hears of a machine that installs itself, in its order: that it was armed, was given its script, has read
 * its files, is installed, and has had its first start.
 */
export const TOLD = ["armed", "script", "read", "installed", "done"] as const;

/** Deeds of a step that outlast the run. */
export const doesSchema = z.discriminatedUnion("kind", [
  z.object({
    kind: z.literal("stick written"),
    stick: z.string(),
    imageId: z.string(),
    image: z.string(),
    written: z.enum(["as the image", "uefi", "legacy", "unknown"]),
  }),
  z.object({ kind: z.literal("stick read back"), stick: z.string() }),
  z.object({
    kind: z.literal("checksum compared"),
    imageId: z.string(),
    image: z.string(),
    checksum: checksumSchema,
  }),
  z.object({ kind: z.literal("drives overwritten"), drives: z.array(z.string()), by: z.string() }),
  /** Keys of the machine's firmware, as they were read at the machine. */
  z.object({
    kind: z.literal("keys noted"),
    machine: z.string(),
    keys: z.object({
      setup: z.string().optional(),
      bootMenu: z.string().optional(),
      network: z.string().optional(),
      seconds: z.number().int().positive().nullable().optional(),
    }),
  }),
]);
export type Deed = z.infer<typeof doesSchema>;

export const stepSchema = z.object({
  id: z.string(),
  zone: zoneSchema,
  kind: z.enum(["act", "type", "wait", "confirm", "guard", "read"]),
  place: z.enum(["desk", "console", "at the machine"]),
  title: z.string(),
  see: z.array(z.string()),
  never: z.array(z.string()),
  do: z.array(z.string()),
  type: z.array(z.object({ label: z.string(), value: z.string() })),
  secret: z.array(z.string()),
  keys: z.string(),
  expected: z.array(z.object({ looks: z.string(), means: z.string() })),
  hazards: z.array(z.string()),
  guard: guardSchema.nullable(),
  /** Of a guard that compares what the console is about to do with the plan; null of one that asks for a drive. */
  readBack: readBackSchema.nullable().default(null),
  duration: durationSchema,
  figure: figureSchema.nullable(),
  /** What is read or written through the medium meanwhile; the time it takes is measured in the run and learned. */
  moves: z
    .object({ way: rateSampleSchema.shape.way, through: z.string(), bytes: z.number().positive() })
    .nullable()
    .default(null),
  /** Why this step may not be passed over without a reason that goes on the record; empty for the others. */
  must: z.string().default(""),
  /** What the person is asked to write down when the step is done; it goes on the record. Empty for most. */
  asks: z.string().default(""),
  /** What is so in the world once the step is done: the register, the shelf and the ledger are written from it. */
  does: doesSchema.nullable().default(null),
  /** What a wait is a wait of ("profile version screen"), so that its time is learned; empty for the others. */
  screen: z.string().default(""),
  /** What the boot service hears when the step is done, so that nobody has to say so; null of a step that a person ends. */
  told: z.enum(TOLD).nullable().default(null),
  /** Own runs that stand behind its duration. */
  runs: z.number().int().nonnegative().default(0),
  /** What it does to the machine; empty in runs from before that was kept, and for steps that only look. */
  effects: z.array(effectSchema).default([]),
  /** The strip once it is done, from its effects. */
  after: stripSchema,
});

export type Step = z.infer<typeof stepSchema>;
export type Guard = z.infer<typeof guardSchema>;
export type ReadBack = z.infer<typeof readBackSchema>;
