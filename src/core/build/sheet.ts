import { z } from "zod";
import { defineDocument } from "../document";
import { waiverSchema } from "../finding";
import { WAYS } from "../boot";
import { accountSchema } from "../identity";
import { LAYOUTS, ROADS } from "../image";

const word = z.string().max(400).default("");

/** A person agreed that a drive is erased: the drive, what stood on it then, and what was typed to name it. */
const consentSchema = z.object({
  drive: z.string(),
  /** The characters that were typed; kept as they were. */
  typed: z.string(),
  /** What was known to stand on the drive; when that changes, the consent ends. Null in sheets from before it was kept. */
  holds: z.string().nullable().default(null),
  by: z.string(),
  at: z.string(),
});
export type Consent = z.infer<typeof consentSchema>;

/** Sheets from before a target could be several drives hold one consent, or null. */
const consentsOf = (value: unknown): unknown =>
  (value === null ? [] : Array.isArray(value) ? value : [value]).map((one: unknown) =>
    typeof one === "object" && one !== null && "tail" in one ? { ...one, typed: one.tail } : one,
  );

/** The decisions of a build, stage by stage. It holds choices only; facts stay with the machine and the image. */
export const sheetSchema = z.object({
  schemaVersion: z.literal(1),
  subject: z.string().max(200).default(""),
  machine: z.object({ id: z.string().nullable().default(null) }).prefault({}),
  image: z
    .object({
      id: z.string().nullable().default(null),
      /** The edition of the OS profile that the steps are made from; null for the newest. */
      edition: z.number().int().positive().nullable().default(null),
      road: z.enum(ROADS).default("fresh"),
      way: z.enum(WAYS).default("virtual media"),
      stick: z
        .object({
          /** Key in the drive register; empty for a stick that is only described here. */
          key: word,
          /** It is used as it was written before; no step writes it. */
          ready: z.boolean().default(false),
          name: word,
          sizeBytes: z.number().int().nonnegative().nullable().default(null),
          written: z.enum(["as the image", "uefi", "legacy", "unknown"]).default("as the image"),
          holds: word,
        })
        .prefault({}),
    })
    .prefault({}),
  boot: z
    .object({
      mode: z.enum(["uefi", "legacy"]).default("uefi"),
      start: z.enum(["one-time boot", "media first in the boot order"]).default("one-time boot"),
      secureBoot: z.enum(["on", "off"]).default("on"),
      menuKey: word,
    })
    .prefault({}),
  storage: z
    .object({
      /** The drive that the system is installed on; of a set, its first one. */
      target: z.string().nullable().default(null),
      /** The other drives of a set, and spares that stand by for it. */
      partners: z
        .array(z.object({ drive: z.string(), role: z.enum(["member", "spare"]).default("member") }))
        .default([]),
      /** How the drives of the target stand together. */
      layout: z.enum(LAYOUTS).default("single drive"),
      leaveAlone: z.array(z.string()).default([]),
      free: z.array(z.string()).default([]),
      erase: z.preprocess(consentsOf, z.array(consentSchema)).default([]),
    })
    .prefault({}),
  network: z
    .object({
      port: z.string().nullable().default(null),
      segment: z.string().nullable().default(null),
      school: z.enum(["fixed", "reserved", "dynamic"]).default("fixed"),
      address: word,
      gateway: word,
      nameServers: z.array(z.string()).default([]),
      /** For "dynamic now, fixed later": the day by which it is fixed. */
      fixedBy: z.iso.date().nullable().default(null),
    })
    .prefault({}),
  answers: z
    .object({
      hostName: word,
      domain: word,
      keyboard: word,
      locale: word,
      timeZone: word,
      accounts: z.array(accountSchema).default([]),
      /** Where the passwords are kept, in words; never a password. */
      secretsKept: word,
    })
    .prefault({}),
  handOver: z
    .object({
      licence: z.enum(["none needed", "licensed", "evaluation"]).default("none needed"),
      evaluationEnds: z.iso.date().nullable().default(null),
      owner: word,
      notes: z.string().max(10_000).default(""),
    })
    .prefault({}),
  waivers: z.array(waiverSchema).default([]),
});
export type Sheet = z.infer<typeof sheetSchema>;
export const sheetDocument = defineDocument({ kind: "build", version: 1, schema: sheetSchema, upgrades: {} });

export const emptySheet = (): Sheet => sheetSchema.parse({ schemaVersion: 1 });
