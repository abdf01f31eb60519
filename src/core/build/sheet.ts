import { z } from "zod";
import { waiverSchema } from "../finding";
import { WAYS } from "../boot";
import { accountSchema } from "../identity";
import { ROADS } from "../image";

const word = z.string().max(400).default("");

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
      target: z.string().nullable().default(null),
      leaveAlone: z.array(z.string()).default([]),
      free: z.array(z.string()).default([]),
      /** The person wrote the tail of the serial to agree that this drive's content is erased. */
      erase: z
        .object({ drive: z.string(), tail: z.string(), by: z.string(), at: z.string() })
        .nullable()
        .default(null),
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

export const emptySheet = (): Sheet => sheetSchema.parse({ schemaVersion: 1 });
