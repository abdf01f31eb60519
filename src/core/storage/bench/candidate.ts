import {
  lossWithin,
  survival,
  unreadable,
  type Reliability,
  type Survival,
  type Trial,
} from "../reliability";
import { ladderOf, type Rung } from "./capacity";
import { REBUILD_SHARE, type DriveClass } from "./classes";
import { lossGroups, redundancyOf, tolerates, type Layout } from "./layout";
import { classOf, type Question } from "./question";

/** One layout with all that is said of it. */
export interface Candidate {
  layout: Layout;
  rawBytes: number;
  usableBytes: number;
  ladder: Rung[];
  survival: Survival;
  /** Of one drive, in seconds: beside other work, and where the machine is busy. */
  rebuild: { likely: number; late: number };
  /** Chance that a rebuild without any redundancy left meets what it cannot read. */
  unreadable: number;
  /** Chance that data are lost within five years. */
  loss: number;
  /** Drives in groups, and standing by. */
  used: number;
  /** In drives' worth of work: small reads, and small writes with their penalty. */
  reads: number;
  writes: number;
}

const YEARS = 5;

/** Bytes that a rebuild of a drive reads and writes on each drive; a pool reads only what is allocated. */
function rebuildBytes({ kind, groups, data, distributed }: Layout, largest: number, full: number): number {
  if (kind.school !== "ZFS") return largest;
  const allocated = (largest * full) / 100;
  if (data === 0) return allocated;
  // A dRAID rebuilds onto spares that are spread over all its drives.
  const members = groups[0]?.length ?? 1;
  return (allocated * (data + tolerates({ kind, groups }))) / Math.max(1, members - distributed);
}

/** What small reads and writes are worth: a vdev with parity does one at a time, a mirror reads on all its drives. */
function weights(layout: Layout): { reads: number; writes: number } {
  const drives = layout.groups.flat().length;
  const { kind, groups } = layout;
  if (kind.school === "ZFS")
    return kind.type === "mirror" || kind.type === "stripe"
      ? { reads: drives, writes: groups.length }
      : layout.data > 0
        ? ((n) => ({ reads: n, writes: n }))(drives / (layout.data + tolerates(layout)))
        : { reads: groups.length, writes: groups.length };
  const penalty = { 0: 1, 1: drives, 10: 2, 5: 4, 50: 4, 6: 6, 60: 6 }[kind.type];
  return { reads: drives, writes: drives / penalty };
}

/** The groups of a layout as the chain of failures sees them. */
export function reliabilityOf(
  layout: Layout,
  largest: number,
  drive: DriveClass,
  question: Question,
): Reliability {
  const t = tolerates(layout);
  const groups = lossGroups(layout);
  const isRing = redundancyOf(layout).kind === "ring";
  const seconds =
    rebuildBytes(layout, largest, question.full) / (drive.bytesPerSecond * REBUILD_SHARE.likely);
  const waits = layout.spares.length + layout.distributed > 0 ? 0 : question.replace;
  return {
    members: groups[0] ?? 1,
    tolerates: t,
    // On a ring each drive has two neighbours that it shares data with: as many pairs as drives.
    groups: isRing ? layout.groups[0]!.length : groups.length,
    ...{ afr: drive.afr, repairHours: Math.max(waits + seconds / 3600, 0.01), repair: "parallel" },
    ...{
      bitErrors: t > 0 ? drive.bitErrors : null,
      driveBytes: (largest * (layout.kind.school === "ZFS" ? question.full : 100)) / 100,
    },
  };
}

export function candidateOf(
  layout: Layout,
  sizes: readonly number[],
  drive: DriveClass,
  question: Question,
): Candidate {
  const rawBytes = sizes.reduce((a, b) => a + b, 0);
  const ladder = ladderOf(layout, sizes, question);
  const largest = Math.max(...layout.groups.flat().map((i) => sizes[i]!));
  const model = reliabilityOf(layout, largest, drive, question);
  const bytes = rebuildBytes(layout, largest, question.full);
  return {
    ...{ layout, rawBytes, ladder, usableBytes: ladder.at(-1)?.left ?? rawBytes },
    survival: survival(redundancyOf(layout)),
    rebuild: {
      likely: bytes / (drive.bytesPerSecond * REBUILD_SHARE.likely),
      late: bytes / (drive.bytesPerSecond * REBUILD_SHARE.late),
    },
    ...{ unreadable: unreadable(model), loss: lossWithin(model, YEARS) },
    used: layout.groups.flat().length + layout.spares.length,
    ...weights(layout),
  };
}

/** The same layout for a trial by chance; `batch` is how many times as often drives fail while one of their group is lost. */
export const trialOf = (
  { layout }: Candidate,
  sizes: readonly number[],
  question: Question,
  batch: number,
  seed: number,
): Trial => ({
  model: reliabilityOf(
    layout,
    Math.max(...layout.groups.flat().map((i) => sizes[i]!)),
    classOf(question),
    question,
  ),
  ...{ years: YEARS, batch, seed, repairs: batch > 1 ? "even" : "spread" },
});
