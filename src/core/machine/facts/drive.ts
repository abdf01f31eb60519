import { z } from "zod";

export const text = z.string().max(400);
export const optionalText = text.nullable().default(null);
const count = z.number().int().nonnegative().nullable();

/** What stands on a drive or in one of its parts. `inUse` is where it is mounted, or what it is a member of. */
export const contentSchema = z.object({
  part: text,
  sizeBytes: z.number().int().nonnegative(),
  kind: text,
  label: optionalText,
  mountedAt: z.array(text).default([]),
  /** GUID of a GPT partition; boot entries of the firmware name it. */
  partUuid: text.optional(),
});

/** What a legacy firmware and a look into the first sector find: whether it ends in 55 AA, and whether code stands in it. */
export const firstSectorSchema = z.object({ signature: z.boolean(), code: z.boolean() });

/** The EFI programs of one FAT volume: what processor each is for (null: no program), and whether it carries a signature. */
export const efiVolumeSchema = z.object({
  /** Number of the partition; 0 where the file system stands on the bare drive. */
  partition: z.number().int().nonnegative(),
  partUuid: text.optional(),
  files: z.array(
    z.object({
      path: text,
      arch: z.enum(["x64", "ia32", "aa64", "other"]).nullable(),
      isSigned: z.boolean(),
    }),
  ),
});

/** What the drive says of its own health; a counter that it does not keep is absent, never zero. */
export const healthSchema = z
  .object({
    /** The drive's own verdict. */
    passed: z.boolean().nullable(),
    hours: count,
    powerCycles: count,
    temperatureC: z.number().nullable(),
    reallocated: count,
    pending: count,
    uncorrectable: count,
    mediaErrors: count,
    interfaceErrors: count,
    /** Share of the rated writes used up; above 100 it is beyond what the maker promised. */
    wearPercent: z.number().nonnegative().nullable(),
    sparePercent: z.number().nullable(),
    spareThresholdPercent: z.number().nullable(),
    writtenBytes: z.number().nonnegative().nullable(),
    selfTest: z
      .object({ kind: text, passed: z.boolean().nullable(), atHours: count.default(null) })
      .nullable(),
    /** What the drive itself calls a warning now, in words. */
    warnings: z.array(text),
  })
  .partial();

export const MEDIA = ["nvme", "flash", "spinning", "usb", "card", "virtual", "unknown"] as const;

export const driveSchema = z.object({
  /** Identity within a machine: serial, else WWN, else "?" and the letter it had, which says nothing next time. */
  id: text,
  serial: optionalText,
  wwn: optionalText,
  model: optionalText,
  maker: optionalText,
  firmware: optionalText,
  sizeBytes: z.number().int().nonnegative(),
  logicalSectorBytes: z.number().int().nullable().default(null),
  physicalSectorBytes: z.number().int().nullable().default(null),
  media: z.enum(MEDIA),
  rotationRpm: z.number().int().nullable().default(null),
  removable: z.boolean().default(false),
  /** The letter or name at import time; it moves. */
  seenAs: text,
  bay: optionalText,
  /** PCI place or name of the controller that it hangs on. */
  controller: optionalText,
  /** The kernel's driver of the drive, where a tool tells one: of virtual drives it says how they are reached. */
  driver: optionalText,
  /** Not a drive but a set that a controller shows as one: the name of the set. */
  presentedBy: optionalText,
  /** Tracks laid over each other, as far as a drive tells: those that hide it look like any other. */
  shingled: z.enum(["host-aware", "host-managed"]).nullable().default(null),
  /** Not in the machine: a volume of an array on a storage network, by how it is reached. */
  san: z.enum(["iSCSI", "Fibre Channel"]).nullable().default(null),
  /** By how many paths it is reached; null for a drive of the machine itself. */
  sanPaths: z.number().int().positive().nullable().default(null),
  health: healthSchema.nullable().default(null),
  table: optionalText,
  /** Null: nobody has read what stands on it. Empty: it was read, and nothing was found. */
  contents: z.array(contentSchema).nullable().default(null),
  /** Null: nobody has read it. */
  firstSector: firstSectorSchema.nullable().default(null),
  /** The FAT volumes that somebody has looked into; null: none. */
  efiVolumes: z.array(efiVolumeSchema).nullable().default(null),
  /** Arrays, pools and volume groups that it belongs to, as "kind name". */
  memberOf: z.array(text).default([]),
  /** ISO time of the first complete import that did not see it any more. */
  missingSince: optionalText,
});

export type Drive = z.infer<typeof driveSchema>;
export type DriveContent = z.infer<typeof contentSchema>;
export type DriveHealth = z.infer<typeof healthSchema>;
