import { takes } from "../../estimate";
import type { DriveWork, Screen } from "../../image";
import { contentWords, driveLook, driveName, drivesOf, serialTail, type Drive } from "../../machine";
import { HAZARD, step, type Guard, type Step } from "../../stage";
import { targetsOf, type StorageGround } from "../ground";
import { dispositionOf } from "../guard";
import { proofOf, proofWords } from "../proof";

/** The drives that a screen works on: those of the target, or those that the plan frees. */
function drivesOfWork(plan: StorageGround, work: DriveWork): Drive[] {
  if (work === "none") return [];
  if (work !== "others") return targetsOf(plan).map((t) => t.drive);
  return drivesOf(plan).filter((d) => dispositionOf(d, plan.sheet.storage) === "free");
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
): Step[] {
  const drives = drivesOfWork(plan, screen.drive);
  const count = chosenBefore && screen.drive === "writes" ? Math.min(1, drives.length) : drives.length;
  const group = `${prefix}${screen.id}`;
  return Array.from({ length: count }, (_, i) =>
    step(`${prefix}guard-${screen.id}${i === 0 ? "" : `-${i + 1}`}`, zone, takes(45, 150), {
      title: titleOf(screen, i, count),
      kind: "guard",
      place: "console",
      see: drives.map((d) => `${driveLook(d)} – ${contentWords(d)}`),
      do: [
        screen.drive === "chooses"
          ? "Open the installer's details of the drive that you are about to choose, and read its serial there."
          : "Read the serial of the drive that will be written, from the console itself.",
      ],
      hazards: plan.keepsSystem && screen.drive !== "others" ? [HAZARD.change] : [HAZARD.erase],
      guard: guardOver(plan, drives, group),
    }),
  );
}

function titleOf(screen: Screen, i: number, count: number): string {
  const before = screen.drive === "chooses" ? "before it is chosen" : "before anything is written";
  return count === 1 ? `Name the drive ${before}` : `Name drive ${i + 1} of ${count} ${before}`;
}

function guardOver(plan: StorageGround, drives: readonly Drive[], group: string): Guard {
  const machine = drivesOf(plan);
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
    asks: longest ? proofWords(longest, "the console shows it") : "",
    leaveAlone: machine
      .filter((d) => !drives.includes(d) && dispositionOf(d, plan.sheet.storage) !== "target")
      .map((d) => ({ tail: serialTail(d), name: driveName(d), holds: contentWords(d) })),
  };
}
