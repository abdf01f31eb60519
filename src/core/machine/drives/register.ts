import { z } from "zod";
import { defineDocument } from "../../document";
import { contentWords } from "../facts/describe";
import { healthSchema, MEDIA, optionalText, text, type Drive } from "../facts/drive";
import { plainWwn } from "../facts/identity";

/** How a stick was written, which is a property of the stick until it is written again. */
export const WRITTEN = ["as the image", "uefi", "legacy", "several images", "data only", "unknown"] as const;

/** How fast a stick's port is; it bounds writing and reading until the stick itself was measured. */
export const SPEED_CLASSES = ["USB 2", "USB 3"] as const;

export const wipeSchema = z.object({
  at: z.iso.datetime(),
  by: text,
  method: z.enum([
    "overwritten once",
    "secure erase of the drive",
    "crypto erase",
    "signatures only",
    "installed over",
    "destroyed",
  ]),
  /** What stood on it, as it was known then. */
  was: z.string().max(2000),
  remark: z.string().max(400).default(""),
});

/** One drive, stick or card with its life: where it sits and sat, what is and was on it, and how it was erased. */
export const registerEntrySchema = z.object({
  schemaVersion: z.literal(1),
  serial: optionalText,
  wwn: optionalText,
  model: optionalText,
  maker: optionalText,
  sizeBytes: z.number().int().nonnegative(),
  media: z.enum(MEDIA),
  /** What people call a stick; empty for drives. */
  label: z.string().max(80).default(""),
  state: z.enum(["in a machine", "on the shelf", "not seen", "destroyed"]),
  /** For the shelf: where it lies. */
  place: z.string().max(120).default(""),
  spare: z.boolean().default(false),
  health: healthSchema.nullable().default(null),
  holds: z.string().max(2000).default(""),
  written: z.enum(WRITTEN).nullable().default(null),
  /** The partition scheme that the writing program was told to make; null for a plain copy of the image. */
  scheme: z.enum(["GPT", "MBR"]).nullable().default(null),
  speedClass: z.enum(SPEED_CLASSES).nullable().default(null),
  /** The image that it was written with, and whether it was read back and compared. */
  carries: z
    .object({ imageId: text, name: text, at: z.iso.datetime(), compared: z.boolean() })
    .nullable()
    .default(null),
  /** Newest last; `until` null means that it sits there now. */
  stays: z
    .array(
      z.object({
        machineId: text,
        machine: text,
        bay: optionalText,
        from: z.iso.datetime(),
        until: z.iso.datetime().nullable(),
        hoursAtStart: z.number().nullable().default(null),
      }),
    )
    .default([]),
  held: z.array(z.object({ at: z.iso.datetime(), machine: text, what: z.string().max(2000) })).default([]),
  wipes: z.array(wipeSchema).default([]),
  notes: z.string().max(4000).default(""),
});
export type RegisterEntry = z.infer<typeof registerEntrySchema>;
export const driveDocument = defineDocument({
  kind: "drive",
  version: 1,
  schema: registerEntrySchema,
  upgrades: {},
});
export type Wipe = z.infer<typeof wipeSchema>;

/** The key of a drive in the register: its serial, else its WWN; null for one that nothing identifies. */
export function registerKey(drive: Pick<Drive, "id" | "serial" | "wwn">): string | null {
  if (drive.id.includes("@")) return drive.id;
  if (drive.serial) return drive.serial.trim().toUpperCase();
  return drive.wwn ? plainWwn(drive.wwn) : null;
}

const MOST_KEPT = 200;

/** A drive was seen in a machine: its stay goes on or begins, and what is on it is noted when it has changed. */
export function sightDrive(
  known: RegisterEntry | null,
  drive: Drive,
  machine: { id: string; name: string },
  at: string,
): RegisterEntry {
  const entry = structuredClone(known) ?? newEntry(drive);
  const here = entry.stays.at(-1);
  const isHere = here?.machineId === machine.id && here.until === null;
  if (drive.missingSince !== null) {
    // Another machine may hold it by now; only a stay in this one ends.
    if (!isHere) return entry;
    here.until = drive.missingSince;
    return { ...entry, state: entry.state === "in a machine" ? "not seen" : entry.state };
  }
  if (isHere) Object.assign(here, { machine: machine.name, bay: drive.bay });
  else {
    if (here?.until === null) here.until = at;
    entry.stays.push({
      machineId: machine.id,
      machine: machine.name,
      bay: drive.bay,
      from: at,
      until: null,
      hoursAtStart: drive.health?.hours ?? entry.health?.hours ?? null,
    });
  }
  const holds = contentWords(drive).slice(0, 2000);
  if (holds !== entry.holds) entry.held.push({ at, machine: machine.name, what: holds });
  return {
    ...entry,
    serial: drive.serial ?? entry.serial,
    wwn: drive.wwn ?? entry.wwn,
    model: drive.model ?? entry.model,
    maker: drive.maker ?? entry.maker,
    sizeBytes: drive.sizeBytes || entry.sizeBytes,
    media: drive.media === "unknown" ? entry.media : drive.media,
    health: drive.health ?? entry.health,
    state: "in a machine",
    place: "",
    spare: false,
    holds,
    stays: entry.stays.slice(-MOST_KEPT),
    held: entry.held.slice(-MOST_KEPT),
  };
}

const newEntry = (drive: Drive): RegisterEntry =>
  registerEntrySchema.parse({
    schemaVersion: 1,
    serial: drive.serial,
    wwn: drive.wwn,
    model: drive.model,
    maker: drive.maker,
    sizeBytes: drive.sizeBytes,
    media: drive.media,
    state: "in a machine",
  });

/** What stands on a drive after it was erased this way; "nothing" where it is not named. */
const HOLDS_AFTER: Partial<Record<Wipe["method"], string>> = {
  "signatures only": "signatures removed; the data is still readable",
  "installed over": "an installation; old data that it did not overwrite is still readable",
};

/** Erasing is written down with what stood on the drive; a destroyed one stays in the register. */
export function recordWipe(entry: RegisterEntry, wipe: Omit<Wipe, "was">): RegisterEntry {
  const was = entry.holds || "not known";
  return {
    ...entry,
    wipes: [...entry.wipes, { ...wipe, was }],
    held: [...entry.held, { at: wipe.at, machine: "", what: `erased: ${wipe.method}` }],
    holds: HOLDS_AFTER[wipe.method] ?? "nothing",
    written: null,
    scheme: null,
    carries: null,
    state: wipe.method === "destroyed" ? "destroyed" : entry.state,
  };
}

/** A stick was written with an image: what it held before goes into its past. */
export function recordWriting(
  entry: RegisterEntry,
  writing: {
    imageId: string;
    name: string;
    written: (typeof WRITTEN)[number];
    scheme: RegisterEntry["scheme"];
    compared: boolean;
    at: string;
  },
): RegisterEntry {
  const { imageId, name, written, scheme, compared, at } = writing;
  return {
    ...entry,
    written,
    scheme: written === "as the image" ? null : scheme,
    carries: { imageId, name, at, compared },
    holds: `installer: ${name}`.slice(0, 2000),
    held: [...entry.held, { at, machine: "", what: `written with ${name}` }].slice(-MOST_KEPT),
  };
}

/** What was written was read back and is the same. */
export const recordReadBack = (entry: RegisterEntry): RegisterEntry =>
  entry.carries ? { ...entry, carries: { ...entry.carries, compared: true } } : entry;

/** Taken out by hand and laid on a shelf. */
export function layOnShelf(entry: RegisterEntry, place: string, spare: boolean, at: string): RegisterEntry {
  const stays = entry.stays.map((s) => (s.until === null ? { ...s, until: at } : s));
  return { ...entry, stays, state: "on the shelf", place, spare };
}

/** Where it is now, in words. */
export function whereWords(entry: RegisterEntry): string {
  const last = entry.stays.at(-1);
  if (entry.state === "in a machine" && last)
    return `${last.machine}${last.bay ? `, ${/^\d/.test(last.bay) ? `bay ${last.bay}` : last.bay}` : ""}`;
  if (entry.state === "on the shelf") return entry.place || "on the shelf";
  if (entry.state === "destroyed") return "destroyed";
  return last ? `not found since it left ${last.machine}` : "not seen";
}

/** The machine that a drive sat in before the one it is in now, with its hours when it came. */
export function cameFrom(entry: RegisterEntry): { machine: string; hours: number | null } | null {
  const now = entry.stays.at(-1);
  const before = entry.stays.slice(0, -1).findLast((s) => s.machineId !== now?.machineId);
  return now && now.until === null && before ? { machine: before.machine, hours: now.hoursAtStart } : null;
}
