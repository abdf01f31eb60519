import { z } from "zod";
import { defineDocument, upgraded } from "../../document";
import { parametersSchema } from "../../parameter";
import { optionalText, text } from "./drive";
import { factsSchema } from "./facts";
import { bayGroupSchema } from "./layout-schema";

/** Where a fact comes from: the tool that printed it (or "typed"), the file or form, and when. */
export const sourceSchema = z.object({ tool: text, from: text, at: z.iso.datetime() });

/** A value that another tool gave for the same fact, where the two do not agree. */
export const claimSchema = z.object({ value: z.unknown(), source: sourceSchema });

/** A known fault, shown beside every result that it may blur. */
export const defectSchema = z.object({
  id: text,
  what: z.string().trim().min(1, "describe the defect"),
  affects: z.enum(["power", "temperature", "memory", "drives", "network", "console", "other"]),
  since: z.iso.date(),
  by: text,
  mendedOn: z.iso.date().nullable().default(null),
});

/** A firmware that was looked at: what is installed, what there is, and what was decided. */
export const firmwareDecisionSchema = z.object({
  part: z.string().trim().min(1, "enter the part: system firmware, management controller, or a card"),
  installed: text,
  available: z.string().trim().min(1, "enter the available version"),
  decision: z.enum(["undecided", "postponed", "not wanted", "done"]),
  due: z.iso.date().nullable().default(null),
  reason: z.string().default(""),
  by: text,
  at: z.iso.datetime(),
});

/** Something that is due on a day: a restore drill, a self-test, a part to be swapped. */
export const datedSchema = z.object({
  id: text,
  what: z.string().trim().min(1, "enter the task"),
  due: z.iso.date(),
  doneOn: z.iso.date().nullable().default(null),
  by: text,
});

/** What the delivery note says; compared with what the machine says, never mixed with it. */
export const expectedSchema = z.object({
  from: z.string().default(""),
  model: optionalText,
  serial: optionalText,
  cores: z.number().int().positive().nullable().default(null),
  memoryBytes: z.number().positive().nullable().default(null),
  memoryModules: z.number().int().positive().nullable().default(null),
  ports: z.number().int().nonnegative().nullable().default(null),
  drives: z
    .array(
      z.object({
        count: z.number().int().positive(),
        sizeBytes: z.number().positive(),
        model: z.string().default(""),
      }),
    )
    .default([]),
});

export const ROLES = ["general server", "hypervisor", "storage", "backup", "database", "bench"] as const;

/** What people know of a machine that no tool prints. */
export const typedSchema = z.object({
  role: z.enum(ROLES).nullable().default(null),
  use: z.enum(["production", "lab"]).default("production"),
  /** Rack or shelf, and the place in it in words. */
  place: z.string().max(120).default(""),
  circuit: z.string().max(80).default(""),
  keys: z
    .object({
      setup: z.string().max(40).default(""),
      bootMenu: z.string().max(40).default(""),
      network: z.string().max(40).default(""),
      /** From power on to the moment at which the keys are taken. */
      seconds: z.number().int().positive().nullable().default(null),
    })
    .prefault({}),
  bays: z.array(bayGroupSchema).default([]),
  defects: z.array(defectSchema).default([]),
  firmware: z.array(firmwareDecisionSchema).default([]),
  dates: z.array(datedSchema).default([]),
  expected: expectedSchema.nullable().default(null),
  /** Drives put into a bay by hand, by drive id: it stays there whatever an import calls it. */
  placed: z.record(z.string(), z.string()).default({}),
  noise: z.string().max(200).default(""),
  /** Values that commands and the words of a kernel may name, of this machine alone. */
  parameters: parametersSchema.default([]),
  /** The three questions that a laptop in service as a server must answer. */
  laptop: z
    .object({ lid: z.boolean(), sleep: z.boolean(), battery: z.boolean() })
    .default({ lid: false, sleep: false, battery: false }),
});

const documentSchema = z.object({
  schemaVersion: z.literal(2),
  facts: factsSchema,
  /** Path of a fact ("memory.installedBytes", "drives.S123.sizeBytes") to its source. */
  sources: z.record(z.string(), sourceSchema),
  /** Path of a fact to what other tools say of it, where they differ. */
  disputes: z.record(z.string(), z.array(claimSchema)).default({}),
  typed: typedSchema.prefault({}),
  notes: z.string().max(20_000).default(""),
});

type Bag = Record<string, unknown>;
const isBag = (value: unknown): value is Bag =>
  typeof value === "object" && value !== null && !Array.isArray(value);

/**
 * Version 1 kept "nobody has read it" and "nothing stands on it" as the same empty list; the source tells them apart.
 */
function contentsUnread(value: Bag): Bag {
  if (!isBag(value.facts)) return { ...value, schemaVersion: 2 };
  const sources = isBag(value.sources) ? value.sources : {};
  const { drives } = value.facts;
  const unread = (drive: unknown): unknown =>
    isBag(drive) &&
    Array.isArray(drive.contents) &&
    drive.contents.length === 0 &&
    !(`drives.${String(drive.id)}.contents` in sources)
      ? { ...drive, contents: null }
      : drive;
  return {
    ...value,
    schemaVersion: 2,
    facts: { ...value.facts, ...(Array.isArray(drives) && { drives: drives.map(unread) }) },
  };
}

const upgrades = { 1: contentsUnread };

/** Takes machines of any version, from files as well as from the database. */
export const machineDocumentSchema = upgraded(upgrades, documentSchema);
export const machineDocument = defineDocument({
  kind: "machine",
  version: 2,
  schema: machineDocumentSchema,
  upgrades,
});

export type FactSource = z.infer<typeof sourceSchema>;
export type Claim = z.infer<typeof claimSchema>;
export type Defect = z.infer<typeof defectSchema>;
export type FirmwareDecision = z.infer<typeof firmwareDecisionSchema>;
export type Dated = z.infer<typeof datedSchema>;
export type Expected = z.infer<typeof expectedSchema>;
export type Typed = z.infer<typeof typedSchema>;
export type MachineDocument = z.infer<typeof machineDocumentSchema>;

export const emptyMachine = (): MachineDocument =>
  machineDocumentSchema.parse({ schemaVersion: 2, facts: {}, sources: {} });
