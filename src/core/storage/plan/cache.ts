import type { Figure } from "../../estimate";
import { factsOf, sourceWords } from "../../machine";
import { formatBinaryBytes } from "../../units";
import type { StorageGround } from "../ground";
import { memoryOf } from "./view";

const GIB = 2 ** 30;

/** What the cache of the file system takes of the memory at most, and what stays for the system and its guests. */
export interface CacheView {
  memoryBytes: number;
  mostBytes: number;
  leftBytes: number;
  figure: Figure;
}

/** Something of ZFS stands on the machine, or will. */
const hasZfs = (ground: StorageGround): boolean =>
  ground.sheet.storage.sets.some((s) => s.keeper === "ZFS") ||
  (ground.profile?.partitioning?.parts ?? []).some((p) => p.use === "zfs") ||
  (factsOf(ground)?.sets ?? []).some((s) => s.kind === "pool");

/** Null where no ZFS is planned or there, where the profile tells nothing of its cache, and where the memory was not read. */
export function cacheView(ground: StorageGround): CacheView | null {
  const rule = ground.profile?.zfsCache;
  const memoryBytes = memoryOf(ground);
  if (!rule || memoryBytes === null || !hasZfs(ground)) return null;
  const bounds = [
    ...(rule.share === undefined
      ? []
      : [{ words: `${rule.share * 100} % of memory`, bytes: rule.share * memoryBytes }]),
    ...(rule.leaveGib === undefined
      ? []
      : [
          {
            words: `memory minus ${rule.leaveGib} GiB`,
            bytes: Math.max(0, memoryBytes - rule.leaveGib * GIB),
          },
        ]),
    ...(rule.mostGib === undefined ? [] : [{ words: `${rule.mostGib} GiB`, bytes: rule.mostGib * GIB }]),
  ];
  const mostBytes = Math.floor(Math.min(memoryBytes, ...bounds.map((b) => b.bytes)));
  const { name, version } = ground.profile!;
  return {
    ...{ memoryBytes, mostBytes, leftBytes: memoryBytes - mostBytes },
    figure: {
      ...{ value: mostBytes, unit: "bytes" },
      formula:
        bounds.length > 1
          ? `minimum of: ${bounds.map((b) => b.words).join(", ")}`
          : (bounds[0]?.words ?? "all of memory"),
      inputs: [
        {
          ...{
            name: `memory, ${sourceWords(ground, "memory.installedBytes")}`,
            value: formatBinaryBytes(memoryBytes),
          },
          source: "imported",
        },
        ...bounds.map((b) => ({
          ...{ name: `OS profile ${name} ${version}: ${b.words}`, value: formatBinaryBytes(b.bytes) },
          source: "default" as const,
        })),
      ],
    },
  };
}
