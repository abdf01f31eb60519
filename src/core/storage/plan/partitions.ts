import type { Partitioning } from "../../image";
import {
  ext4Figures,
  fatFigures,
  STRICT_FAT32_CLUSTERS,
  swapBytes,
  xfsFault,
  xfsFigures,
} from "../filesystem";
import { extentsOf, physicalVolume } from "../lvm";
import { layOut, type Table } from "../partition";
import { SWAP_SCHOOLS, swapWanted, type SwapSchool } from "./swap";

type Part = Partitioning["parts"][number];
type SizeRule = Part["size"];
type FileSystem = Part["fs"];

/** A part of the target as its installer makes it, in bytes. */
export interface PlannedPart {
  name: string;
  fs: FileSystem;
  startBytes: number;
  bytes: number;
  /** The part that a logical volume stands in. */
  within: string | null;
  /** What `df` will show as its size; null where no such file system stands on it. */
  dfBytes: number | null;
}

export interface PartitionPlan {
  table: Table["label"];
  parts: PlannedPart[];
  /** What no part and no volume takes. */
  idleBytes: number;
  /** Why the installer's tool refuses it, or makes less of it. */
  fault: string | null;
  smallEfi: SmallEfi | null;
  swapBytes: number;
  /** The sheet wants another swap than this installer makes by itself, and it has no part for one. */
  swapLacks: boolean;
  grow: readonly string[];
}

/** What a plan is worked out from. */
export interface PartitionGround {
  bytes: number;
  sectorBytes: number;
  mode: "uefi" | "legacy";
  /** Null where nobody has read it. */
  memoryBytes: number | null;
  swap: SwapSchool;
}

const MIB = 2 ** 20;
/** Where a size follows from the memory and that is not known, the bounds alone can tell it. */
const UNKNOWN_MEMORY = 0;

/** Bytes of a part by its rule; null takes the rest. */
function sizeOf(rule: SizeRule, within: number, memoryBytes: number | null): number | null {
  const { mib, memoryShare, share, leastMib = 0, mostMib = Infinity } = rule;
  const wanted =
    mib !== undefined
      ? mib * MIB
      : memoryShare !== undefined
        ? memoryShare * (memoryBytes ?? UNKNOWN_MEMORY)
        : share !== undefined
          ? share * within
          : null;
  if (wanted === null) return mostMib === Infinity ? null : Math.min(within, mostMib * MIB);
  return Math.min(Math.max(wanted, leastMib * MIB), mostMib * MIB);
}

function dfOf(fs: FileSystem, bytes: number, sectorBytes: number): number | null {
  if (fs === "ext4") return ext4Figures(bytes).sizeBytes;
  return fs === "xfs" && xfsFault(bytes) === null ? xfsFigures(bytes, sectorBytes).sizeBytes : null;
}

/** An EFI system partition with too few clusters to be FAT32, as large sectors make them; null where it is one, or none is made. */
export interface SmallEfi {
  bytes: number;
  clusters: number;
  /** The least size, in whole MiB, with which it would be FAT32. */
  wantedBytes: number;
}

function smallEfi(parts: readonly PlannedPart[], sectorBytes: number): SmallEfi | null {
  const clustersOf = (bytes: number): number =>
    fatFigures(bytes, { sectorBytes, bits: 32, sectorsPerCluster: 1 })?.clusters ?? 0;
  const part = parts.find(({ fs }) => fs === "vfat");
  if (!part || clustersOf(part.bytes) >= STRICT_FAT32_CLUSTERS) return null;
  let wantedBytes = Math.ceil((STRICT_FAT32_CLUSTERS * sectorBytes) / MIB) * MIB;
  while (clustersOf(wantedBytes) < STRICT_FAT32_CLUSTERS) wantedBytes += MIB;
  return { bytes: part.bytes, clusters: clustersOf(part.bytes), wantedBytes };
}

/** The volumes of a group on a part, in whole extents, and the extents that none of them takes. */
function volumesOf(part: Part, bytes: number, at: number, ground: PartitionGround, swap: number | null) {
  const { extents, start } = physicalVolume(bytes);
  const extent = 4 * MIB;
  let free = extents;
  // What has a size comes first: the rest is what those leave.
  const sized = part.volumes.map((v) => {
    const wanted =
      v.fs === "swap" && swap !== null ? swap : sizeOf(v.size, extents * extent, ground.memoryBytes);
    if (wanted === null) return { volume: v, extents: null };
    const own = Math.min(free, extentsOf(wanted));
    free -= own;
    return { volume: v, extents: own };
  });
  let from = at + start;
  const parts = sized.flatMap(({ volume, extents: own }): PlannedPart[] => {
    const taken = (own ?? free) * extent;
    if (own === null) free = 0;
    const startBytes = from;
    from += taken;
    return taken === 0
      ? []
      : [
          {
            ...{ name: volume.name, fs: volume.fs, startBytes, bytes: taken, within: part.name },
            dfBytes: dfOf(volume.fs, taken, ground.sectorBytes),
          },
        ];
  });
  return { parts, idle: free * extent };
}

/** What the installer of a profile makes of a drive by itself, with the swap that the sheet wants. */
export function partitionPlan(rules: Partitioning, ground: PartitionGround): PartitionPlan {
  const { bytes, sectorBytes, mode, memoryBytes } = ground;
  const swap = ground.swap === SWAP_SCHOOLS[0] ? null : swapWanted(ground.swap, memoryBytes);
  const own = rules.parts.filter((p) => p.only === undefined || p.only === mode);
  const wanted = own.flatMap((part) => {
    const size = part.fs === "swap" && swap !== null ? swap : sizeOf(part.size, bytes, memoryBytes);
    return size === 0 ? [] : [{ part, use: part.use, bytes: size }];
  });
  const label = mode === "uefi" ? "gpt" : rules.legacyTable;
  const table = layOut(rules.tool, label, { bytes, sectorBytes }, wanted);
  let idle = 0;
  const parts = table.partitions.flatMap((p, i): PlannedPart[] => {
    const { part } = wanted[i]!;
    const [startBytes, length] = [p.start * sectorBytes, Math.max(0, p.sectors * sectorBytes)];
    const shown: PlannedPart = {
      ...{ name: part.name, fs: part.fs, startBytes, bytes: length, within: null },
      dfBytes: dfOf(part.fs, length, sectorBytes),
    };
    if (part.volumes.length === 0) return [shown];
    const inside = volumesOf(part, length, startBytes, ground, swap);
    idle += inside.idle;
    return [shown, ...inside.parts];
  });
  const last = table.partitions.at(-1);
  const end = last ? (last.start + last.sectors) * sectorBytes : 0;
  const swaps = parts.filter((p) => p.fs === "swap");
  return {
    ...{ table: label, parts, fault: table.fault?.words ?? null, grow: rules.grow },
    idleBytes: idle + Math.max(0, (table.last + 1) * sectorBytes - end - MIB),
    smallEfi: smallEfi(parts, sectorBytes),
    swapBytes: swaps.reduce((sum, p) => sum + swapBytes(p.bytes), 0),
    swapLacks: swap !== null && swap > 0 && swaps.length === 0,
  };
}
