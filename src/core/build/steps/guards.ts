import { takes } from "../../estimate";
import type { DriveWork, Screen } from "../../image";
import { contentWords, driveLook, driveName, serialTail, type Drive } from "../../machine";
import { dispositionOf, proofOf, proofWords } from "../../storage";
import { drivesOf, targetsOf, type BuildContext } from "../context";
import { keepsSystem } from "../roads";
import type { Guard, Step } from "../step";
import { HAZARD, step } from "./make";

/** The drives that a screen works on: those of the target, or those that the plan frees. */
function drivesOfWork(context: BuildContext, work: DriveWork): Drive[] {
  if (work === "none") return [];
  if (work !== "others") return targetsOf(context).map((t) => t.drive);
  return drivesOf(context).filter((d) => dispositionOf(d, context.sheet.storage) === "free");
}

/** A screen that works on drives beside the target finds none that the plan gives it. */
export const lacksDrives = (context: BuildContext, screen: Screen): boolean =>
  screen.drive === "others" && drivesOfWork(context, "others").length === 0;

/**
 * The guards before a screen, one for each drive that it works on. Where the drives were named on a screen of the same
 * leg before (`chosenBefore`), any one of them is named again: the screen may show another choice than was made.
 */
export function guardsBefore(
  context: BuildContext,
  screen: Screen,
  { prefix, zone, chosenBefore }: { prefix: string; zone: "H" | "I"; chosenBefore: boolean },
): Step[] {
  const drives = drivesOfWork(context, screen.drive);
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
      hazards: keepsSystem(context) && screen.drive !== "others" ? [HAZARD.change] : [HAZARD.erase],
      guard: guardOver(context, drives, group),
    }),
  );
}

function titleOf(screen: Screen, i: number, count: number): string {
  const before = screen.drive === "chooses" ? "before it is chosen" : "before anything is written";
  return count === 1 ? `Name the drive ${before}` : `Name drive ${i + 1} of ${count} ${before}`;
}

function guardOver(context: BuildContext, drives: readonly Drive[], group: string): Guard {
  const machine = drivesOf(context);
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
      .filter((d) => !drives.includes(d) && dispositionOf(d, context.sheet.storage) !== "target")
      .map((d) => ({ tail: serialTail(d), name: driveName(d), holds: contentWords(d) })),
  };
}
