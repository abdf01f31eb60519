import { z } from "zod";
import { durationSchema, figureSchema, rateSampleSchema } from "../estimate";
import { zoneSchema } from "../finding";
import { checksumSchema, READ_BACK } from "../image";
import { effectSchema, stripSchema } from "./effects";
import { sightSchema } from "./sight";

/** What a console does to a machine, in the two words that installers have for it. */
export const VERBS = ["install", "upgrade"] as const;

/**
 * What the boot service hears of a machine that installs itself, in its order: that it was armed, was given its script, has read
 * its files, is installed, and has had its first start.
 */
export const REPORTS = ["armed", "script", "read", "installed", "done"] as const;
export type Report = (typeof REPORTS)[number];

/** Deeds of an operation that outlast the run: the register, the shelf and the ledger are written from them. */
export const deedSchema = z.discriminatedUnion("kind", [
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
export type Deed = z.infer<typeof deedSchema>;

/** What is learned from the time that an operation takes: the rate of a transfer, or how long a wait of this kind is. */
const measureSchema = z.discriminatedUnion("of", [
  z.object({
    of: z.literal("transfer"),
    ...{ way: rateSampleSchema.shape.way, through: z.string(), bytes: z.number().positive() },
  }),
  /** `what`: "profile version screen". */
  z.object({ of: z.literal("wait"), what: z.string() }),
]);
export type Measure = z.infer<typeof measureSchema>;
export type MeasureOf<Of extends Measure["of"]> = Extract<Measure, { of: Of }>;

/** Who may end an operation without a person, and by what. */
const lentSchema = z.discriminatedUnion("executor", [
  z.object({ executor: z.literal("boot service"), report: z.enum(REPORTS) }),
]);
export type Lent = z.infer<typeof lentSchema>;

/** Where an operation comes from: a screen of a profile, by its leg's installer or at the first start; or work beside them. */
const originSchema = z.discriminatedUnion("of", [
  z.object({ of: z.literal("screen"), screen: z.string(), at: z.enum(["installer", "first start"]) }),
  z.object({ of: z.literal("work") }),
]);

/** What all operations share. */
const common = {
  id: z.string(),
  zone: zoneSchema,
  title: z.string(),
  place: z.enum(["desk", "console", "at the machine"]),
  origin: originSchema,
  do: z.array(z.string()),
  lines: z.array(z.object({ label: z.string(), value: z.string() })),
  secrets: z.array(z.string()),
  keys: z.string(),
  hazards: z.array(z.string()),
  sees: z.array(sightSchema),
  never: z.array(sightSchema),
  /** What looks wrong and is not. */
  normal: z.array(z.object({ sight: sightSchema, means: z.string() })),
  /** Why it may not be passed over without a reason that goes on the record; empty for the others. */
  must: z.string(),
  /** What the person is asked to write down when it is done; it goes on the record. Empty for most. */
  records: z.string(),
  duration: durationSchema,
  figure: figureSchema.nullable(),
  /** Own runs that stand behind its duration. */
  runs: z.number().int().nonnegative(),
  measures: z.array(measureSchema),
  /** What it does to the machine; empty in runs from before that was kept, and for operations that only look. */
  effects: z.array(effectSchema),
  /** The strip once it is done, from its effects. */
  after: stripSchema,
  deeds: z.array(deedSchema),
  lent: z.array(lentSchema),
};

/** The drives of which one must be named; nothing but `proof` holds the answer, and that is never shown. */
const nameDrive = {
  kind: z.literal("name drive"),
  /** One of them, and not one that another guard of this group has had named. */
  drives: z
    .array(z.object({ id: z.string(), proof: z.string(), name: z.string(), holds: z.string() }))
    .min(1),
  /** Guards of one screen, which name one drive each. */
  group: z.string(),
  asks: z.string(),
  /** Drives that must not be named: typing one of these tails stops the run with the drive's name. */
  leaveAlone: z.array(z.object({ tail: z.string(), name: z.string(), holds: z.string() })),
};

/**
 * What stands before the key after which there is no way back: the operator types what the console is about to do, and it
 * is compared with the plan. None of it is shown.
 */
const readBack = {
  kind: z.literal("read back"),
  asks: z.array(z.enum(READ_BACK)).min(1),
  verb: z.enum(VERBS),
  version: z.string(),
  /** Sizes of the drives of the target in bytes; the console may show any of them. */
  sizes: z.array(z.number().positive()),
};

/** One step of a procedure. What kinds differ in stands in them; what they share stands once. */
export const operationSchema = z.discriminatedUnion("kind", [
  /** Something is done, and what is seen after it is compared. */
  z.object({ ...common, kind: z.literal("act") }),
  /** Nothing is done; what is seen is compared. */
  z.object({ ...common, kind: z.literal("confirm") }),
  /** The machine works, and nobody has to be there until what is to be seen is seen. */
  z.object({ ...common, kind: z.literal("wait") }),
  z.object({ ...common, ...nameDrive }),
  z.object({ ...common, ...readBack }),
  /** The installed system is read, for the lines of the acceptance. */
  z.object({ ...common, kind: z.literal("collect") }),
  z.object({ ...common, kind: z.literal("hand over") }),
]);
export type Operation = z.infer<typeof operationSchema>;
export type OperationOf<Kind extends Operation["kind"]> = Extract<Operation, { kind: Kind }>;
export type CommonParts = Omit<OperationOf<"act">, "kind">;

/** What naming a drive asks for. */
export type DriveNaming = Pick<OperationOf<"name drive">, "drives" | "group" | "asks" | "leaveAlone">;

export type Guard = OperationOf<"name drive" | "read back">;
