import { factsOf } from "../../machine";
import { targetsOf, type StorageGround } from "../ground";
import { partitionPlan, type PartitionPlan } from "./partitions";
import { SWAP_REASONS, SWAP_SCHOOLS, swapWanted, type SwapSchool } from "./swap";

/** The parts of the target as the sheet shows them. */
export interface PartitionView extends PartitionPlan {
  /** Of the drive that it is made of; several drives of a target are cut alike. */
  driveBytes: number;
  drives: number;
  /** Whether the swap follows from memory that nobody has read. */
  memoryUnread: boolean;
  swaps: { school: SwapSchool; bytes: number | null; reason: string }[];
}

/** What the machine tells of its memory, in bytes. */
export function memoryOf(ground: StorageGround): number | null {
  const { installedBytes, recognisedBytes } = factsOf(ground)?.memory ?? {};
  return installedBytes || recognisedBytes || null;
}

/** Null without a target, on a road that keeps what is there, and where the profile tells nothing of it. */
export function partitionView(ground: StorageGround): PartitionView | null {
  const rules = ground.profile?.partitioning;
  const members = targetsOf(ground).filter((t) => t.role === "member");
  if (!rules || members.length === 0 || ground.keepsSystem) return null;
  const smallest = members.map((m) => m.drive).toSorted((a, b) => a.sizeBytes - b.sizeBytes)[0]!;
  const memoryBytes = memoryOf(ground);
  const { swap } = ground.sheet.storage;
  const plan = partitionPlan(rules, {
    ...{ bytes: smallest.sizeBytes, sectorBytes: smallest.logicalSectorBytes ?? 512 },
    ...{ mode: ground.sheet.boot.mode, memoryBytes, swap },
  });
  return {
    ...plan,
    ...{ driveBytes: smallest.sizeBytes, drives: members.length },
    memoryUnread: memoryBytes === null && /memory/.test(swap),
    swaps: SWAP_SCHOOLS.map((school) => ({
      ...{ school, reason: SWAP_REASONS[school] },
      bytes: school === SWAP_SCHOOLS[0] ? null : swapWanted(school, memoryBytes),
    })),
  };
}
