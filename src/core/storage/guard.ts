import { presentDrives, visibleDrives, type Drive, type Facts } from "../machine";
import { formatBinaryBytes } from "../units";
import { idsOf, type Seated } from "./sets/seats";
import { targetSeats, type TargetPlan } from "./target";

/** What a build does with a drive. "undecided" is a drive that the plan does not know: it turned up later. */
export type Disposition = "target" | "set" | "leave alone" | "free" | "undecided";

export interface DrivePlan extends TargetPlan {
  leaveAlone: readonly string[];
  free: readonly string[];
  sets: readonly (Seated & { id: string })[];
}

/** The planned set that a drive belongs to. */
export const setOf = <Set extends DrivePlan["sets"][number]>(
  { id }: Pick<Drive, "id">,
  { sets }: { sets: readonly Set[] },
): Set | undefined => sets.find((s) => idsOf(s).includes(id));

export function dispositionOf(drive: Pick<Drive, "id">, plan: DrivePlan): Disposition {
  if (targetSeats(plan).some((seat) => seat.drive === drive.id)) return "target";
  if (setOf(drive, plan)) return "set";
  if (plan.leaveAlone.includes(drive.id)) return "leave alone";
  return plan.free.includes(drive.id) ? "free" : "undecided";
}

/** By what a drive can be told apart for good; "letter" is no identity, it moves at the next start. */
export const identityOf = (drive: Drive): "serial" | "wwn" | "letter" =>
  drive.serial ? "serial" : drive.wwn ? "wwn" : "letter";

/** Other drives that an installer's list shows with the same model and the same rounded size. */
export function drivesAlike(facts: Facts, drive: Drive): Drive[] {
  const line = (d: Drive): string => `${d.model ?? ""} ${installerSize(d)}`;
  return visibleDrives(facts).filter((d) => d.id !== drive.id && line(d) === line(drive));
}

/** The size as most installers print it: powers of 1024, three digits. */
export const installerSize = (drive: Drive): string => formatBinaryBytes(drive.sizeBytes);

/**
 * For each array, pool or volume group of a drive: the other present drives that belong to it too, and the one as which a
 * controller shows it.
 */
export function memberPartners(facts: Facts, drive: Drive): { name: string; partners: Drive[] }[] {
  return drive.memberOf.map((name) => ({
    name,
    partners: presentDrives(facts).filter(
      (d) =>
        d.id !== drive.id &&
        (d.memberOf.includes(name) || (d.presentedBy !== null && name === `virtual drive ${d.presentedBy}`)),
    ),
  }));
}
