import { takes } from "../../estimate";
import type { DriveWork, Screen } from "../../image";
import { contentWords, driveLook, driveName, drivesOf, serialTail, type Drive } from "../../machine";
import { HAZARD, operation, type DriveNaming, type Operation } from "../../work";
import { targetsOf, type StorageGround } from "../ground";
import { dispositionOf, setOf } from "../guard";
import { proofOf, proofWords } from "../proof";

/** The drives that a screen works on: those of the target, or those that the plan frees or makes sets of. */
export function drivesOfWork(plan: StorageGround, work: DriveWork): Drive[] {
  if (work === "none") return [];
  if (work !== "others") return targetsOf(plan).map((t) => t.drive);
  const { storage } = plan.sheet;
  const byHand = new Set(storage.sets.filter((s) => s.keeper === "RAID controller").map((s) => s.id));
  return drivesOf(plan).filter((d) => {
    const set = setOf(d, storage);
    return set ? set.later === null && !byHand.has(set.id) : dispositionOf(d, storage) === "free";
  });
}

/** A screen that works on drives beside the target finds none that the plan gives it. */
export const lacksDrives = (plan: StorageGround, screen: Screen): boolean =>
  screen.drive === "others" && drivesOfWork(plan, "others").length === 0;

/**
 * The guards before a screen, one for each drive that it works on. Where the drives were named on a screen of the same
 * leg before (`chosenBefore`), any one of them is named again: the screen may show another choice than was made.
 */
export function guardsBefore(
  plan: StorageGround,
  screen: Screen,
  { prefix, zone, chosenBefore }: { prefix: string; zone: "H" | "I"; chosenBefore: boolean },
): Operation[] {
  const drives = drivesOfWork(plan, screen.drive);
  const count = chosenBefore && screen.drive === "writes" ? Math.min(1, drives.length) : drives.length;
  return guardSteps(plan, drives, {
    ...{ id: `${prefix}guard-${screen.id}`, group: `${prefix}${screen.id}`, zone, count },
    chooses: screen.drive === "chooses",
    changes: plan.keepsSystem && screen.drive !== "others",
  });
}

interface Wanted {
  id: string;
  group: string;
  zone: "C" | "H" | "I";
  /** So many of the drives are named, one after the other. */
  count: number;
  chooses: boolean;
  /** What stands on them is changed and stays. */
  changes: boolean;
}

/** Steps at each of which one of some drives is named, before they are chosen or written. */
export function guardSteps(
  plan: StorageGround,
  drives: readonly Drive[],
  { id, group, zone, count, chooses, changes }: Wanted,
): Operation[] {
  return Array.from({ length: Math.min(count, drives.length) }, (_, i) =>
    operation(`${id}${i === 0 ? "" : `-${i + 1}`}`, zone, takes(45, 150), {
      title: titleOf(chooses, i, count),
      kind: "name drive",
      place: "console",
      sees: drives.map((d) => ({ of: "drive", look: driveLook(d), holds: contentWords(d) })),
      do: [
        chooses
          ? "Open the details of the drive in the installer before you choose it, and read its serial number there."
          : "Read the serial number of the drive that will be written, on the console itself.",
      ],
      hazards: [changes ? HAZARD.change : HAZARD.erase],
      ...guardOver(plan, drives, group),
    }),
  );
}

function titleOf(chooses: boolean, i: number, count: number): string {
  const before = chooses ? "before it is chosen" : "before anything is written";
  return count === 1 ? `Identify the drive ${before}` : `Identify drive ${i + 1} of ${count} ${before}`;
}

function guardOver(plan: StorageGround, drives: readonly Drive[], group: string): DriveNaming {
  const machine = drivesOf(plan);
  // While drives beside the target are written, the target itself is one that must not be.
  const isOther = !drives.some((d) => dispositionOf(d, plan.sheet.storage) === "target");
  const proofs = drives.map((d) => proofOf(d, machine));
  const longest = proofs.toSorted((a, b) => b.text.length - a.text.length)[0];
  return {
    group,
    drives: drives.map((d, i) => ({
      id: d.id,
      proof: proofs[i]?.text ?? "",
      name: driveLook(d),
      holds: contentWords(d),
    })),
    asks: longest ? proofWords(longest, "as on the console") : "",
    leaveAlone: machine
      .filter((d) => !drives.includes(d) && (isOther || dispositionOf(d, plan.sheet.storage) !== "target"))
      .map((d) => ({ tail: serialTail(d), name: driveName(d), holds: contentWords(d) })),
  };
}
