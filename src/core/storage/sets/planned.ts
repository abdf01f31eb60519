import { z } from "zod";
import { SCHOOLS } from "../bench/layout";
import { SET_TYPES } from "./set-types";

export const CACHES = [
  "not said",
  "write through",
  "write back with a battery",
  "write back always",
] as const;

const drives = z.array(z.string().max(400)).max(255).default([]);

/** How the volumes of a set get their space: all of it at once, or as they are written. */
export const PROVISIONS = ["thick", "thin"] as const;

/** Something that is made on a set: a volume or a file system of a pool, a logical volume on an array. */
export const plannedVolumeSchema = z.object({
  name: z.string().max(60).default(""),
  /** Null: of a pool a file system, which grows with what is in it; on an array all that is left. */
  bytes: z.number().int().positive().max(1e18).nullable().default(null),
  fs: z.enum(["none", "ext4", "xfs", "btrfs"]).default("none"),
  /** Of a volume in a pool. */
  blockKib: z.union([4, 8, 16, 32, 64, 128].map((n) => z.literal(n))).default(16),
});
export type PlannedVolume = z.infer<typeof plannedVolumeSchema>;

/** A pool, array or virtual drive that the build makes of drives beside its target. */
export const plannedSetSchema = z.object({
  /** Its key within the sheet. */
  id: z.string().max(20),
  name: z.string().max(60).default(""),
  keeper: z.enum(SCHOOLS).default("ZFS"),
  type: z.enum(SET_TYPES).default("raidz2"),
  /** Drives by their ids; of several groups the first ones are the first group. */
  members: drives,
  groups: z.number().int().min(1).max(64).default(1),
  spares: drives,
  /** Mirrors of small blocks and of what describes the data; what is lost with them is the pool. */
  special: drives,
  /** Where writes that somebody waits for are put first. */
  logs: drives,
  /** What is read often, once more; the pool stands without them. */
  caches: drives,
  /** Of a dRAID: data drives of a group, and spares inside it. */
  data: z.number().int().min(0).max(64).default(0),
  distributed: z.number().int().min(0).max(8).default(0),
  use: z.enum(["guests", "bulk files", "database", "backup"]).default("bulk files"),
  /** What will stand on it, in bytes; null where nobody has said. */
  dataBytes: z.number().int().positive().max(1e18).nullable().default(null),
  /** What an array or a virtual drive is cut into; null: as its keeper chooses. */
  stripeKib: z.number().int().min(4).max(4096).nullable().default(null),
  cache: z.enum(CACHES).default("not said"),
  provision: z.enum(PROVISIONS).default("thick"),
  volumes: z.array(plannedVolumeSchema).max(100).default([]),
  /** The day on which it is made, where this build does not make it; null: it is made now. */
  later: z.iso.date().nullable().default(null),
});
export type PlannedSet = z.infer<typeof plannedSetSchema>;
