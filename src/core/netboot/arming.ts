import { z } from "zod";

/** What a firmware tells of itself, compared as one text: case and blanks are the firmware's own taste. */
export const plain = (text: string): string => text.replace(/\s+/g, "").toUpperCase();

/** Serials that makers leave in firmware which was never given one. */
const NO_SERIAL = /^(|0+|NONE|N\/A|DEFAULTSTRING|NOTSPECIFIED|SYSTEMSERIALNUMBER|TOBEFILLEDBYO\.E\.M\.?)$/;
export const isSerial = (text: string): boolean => !NO_SERIAL.test(plain(text));

/** What somebody agreed to: one machine, one state of one sheet, for a stated time. It is never changed afterwards. */
export const armingSchema = z.object({
  schemaVersion: z.literal(1),
  machine: z.object({
    id: z.string(),
    name: z.string(),
    /** As its firmware tells it; an arming without one is not made. */
    serial: z.string().min(1),
    macs: z.array(z.string()).min(1),
  }),
  build: z.object({ id: z.string(), number: z.string(), revision: z.string(), version: z.number().int() }),
  image: z.object({ id: z.string(), name: z.string(), fileName: z.string(), sizeBytes: z.number() }),
  kernel: z.string().min(1),
  initrd: z.array(z.string().min(1)),
  words: z.array(z.string()),
  /** Names under which the answer files are asked for, the first of them the main one. */
  answers: z.array(z.string()).min(1),
  /** Of all answer files as they were then: what was changed since is not given out. */
  digest: z.string(),
  /** What the machine has to show before it is given anything; "" where MAC and serial are enough. */
  code: z.string().default(""),
  /** Drives that lose what stands on them, by their looks; bay and serial are empty where they were not read. */
  erases: z.array(
    z.object({
      look: z.string(),
      holds: z.string(),
      bay: z.string().default(""),
      serial: z.string().default(""),
    }),
  ),
  /** Of the site, for whoever reads the board. */
  timeZone: z.string(),
  by: z.string(),
  at: z.iso.datetime(),
  until: z.iso.datetime(),
  /** How long the installation takes, from the steps of the sheet, in seconds. */
  likelySeconds: z.number(),
  lateSeconds: z.number(),
  /** What its installer reads of the image, in how many seconds; null where nothing tells. */
  reads: z.object({ bytes: z.number(), seconds: z.number() }).nullable().default(null),
});
export type Arming = z.infer<typeof armingSchema>;

const text = z.string().max(200).default("");

/** Who asks, as far as firmware and boot loader tell. */
export const callerSchema = z.object({
  mac: text,
  serial: text,
  uuid: text,
  maker: text,
  model: text,
  platform: text,
  address: text,
});
export type Caller = z.infer<typeof callerSchema>;

/** What an installing machine may tell of itself, in the order in which it happens. */
export const REPORTS = ["started", "installed", "first boot", "done", "failed"] as const;

export const bootEventSchema = z.discriminatedUnion("kind", [
  z.object({
    kind: z.literal("asked"),
    caller: callerSchema,
    given: z.boolean(),
    words: z.string(),
    waits: z.boolean().default(false),
    /** What it asked for had been given to another one, or to itself, before. */
    second: z.boolean().default(false),
    /** It showed a code, and that was another one. */
    wrongCode: z.boolean().default(false),
  }),
  /** A file was asked for: how many bytes went out, of how many, and `whole` when those were all of it. */
  z.object({
    ...{ kind: z.literal("fetched"), what: z.string(), bytes: z.number(), whole: z.boolean() },
    of: z.number().default(0),
  }),
  z.object({ kind: z.literal("reported"), stage: z.enum(REPORTS), words: z.string().max(400) }),
  z.object({ kind: z.literal("refused"), words: z.string() }),
  z.object({ kind: z.literal("cancelled"), by: z.string() }),
]);
export type BootEvent = z.infer<typeof bootEventSchema>;
export type LoggedBoot = { at: string; event: BootEvent };
