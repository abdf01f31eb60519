import { z } from "zod";

const mib = z.number().positive().max(1e9);

/** How large a part is: so many MiB, a share of the memory or of what holds it, within bounds; without any of it, the rest. */
export const sizeRuleSchema = z
  .object({
    mib: mib.optional(),
    memoryShare: z.number().positive().max(4).optional(),
    share: z.number().positive().max(1).optional(),
    leastMib: mib.optional(),
    mostMib: mib.optional(),
  })
  .strict();
export type SizeRule = z.infer<typeof sizeRuleSchema>;

export const FILE_SYSTEMS = ["vfat", "ext4", "xfs", "swap", "zfs", "guest store", "none"] as const;

const volumeSchema = z
  .object({ name: z.string().min(1), size: sizeRuleSchema.default({}), fs: z.enum(FILE_SYSTEMS) })
  .strict();

/** What an installer makes of a drive by itself; its parts in their order. */
export const partitioningSchema = z
  .object({
    tool: z.enum(["sgdisk", "sfdisk", "parted"]),
    /** The table where the firmware starts in the old way; with UEFI it is a GPT. */
    legacyTable: z.enum(["gpt", "dos"]).default("gpt"),
    parts: z
      .array(
        z
          .object({
            name: z.string().min(1),
            use: z.enum(["efi", "bios boot", "linux", "swap", "lvm", "raid", "zfs"]),
            /** Only with this mode of the firmware. */
            only: z.enum(["uefi", "legacy"]).optional(),
            size: sizeRuleSchema.default({}),
            fs: z.enum(FILE_SYSTEMS).default("none"),
            /** Logical volumes of a volume group that stands on this part. */
            volumes: z.array(volumeSchema).default([]),
          })
          .strict(),
      )
      .min(1),
    /** Commands that take what is left idle, once the system runs. */
    grow: z.array(z.string().min(1)).default([]),
  })
  .strict();
export type Partitioning = z.infer<typeof partitioningSchema>;
