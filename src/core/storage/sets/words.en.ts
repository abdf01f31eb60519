import type { PlannedSet } from "./planned";

const KINDS = { ZFS: "pool", md: "array", "RAID controller": "virtual drive" } as const;

/** "pool", "array", "virtual drive". */
export const kindWords = ({ keeper }: Pick<PlannedSet, "keeper">): (typeof KINDS)[PlannedSet["keeper"]] =>
  KINDS[keeper];

/** "pool tank"; of a set without a name its number. */
export const setName = (set: Pick<PlannedSet, "keeper" | "name" | "id">): string =>
  `${kindWords(set)} ${set.name || `no. ${set.id}`}`;

/** "raidz2", "RAID6". */
export const typeWords = ({ type }: Pick<PlannedSet, "type">): string =>
  Number.isNaN(Number(type)) ? (type === "stripe" ? "single drives" : type) : `RAID${type}`;

/** The name of the script that makes a set, as a file of any system. */
export const scriptFile = ({ id, name }: Pick<PlannedSet, "id" | "name">): string =>
  `make-${name.replace(/[^\w-]/g, "_") || id}.sh`;
