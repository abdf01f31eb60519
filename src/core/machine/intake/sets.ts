import type { MachineDocument } from "../facts/document";
import type { Drive } from "../facts/drive";
import type { DriveSet } from "../facts/facts";
import { driveNamed, findDrive } from "../facts/identity";
import type { Item } from "./lists";

/** Ties the members of a set to drives while their names still mean them. */
export function membersTied(drives: readonly Drive[], set: Item): Item {
  if (!Array.isArray(set.members)) return set;
  const told: DriveSet["members"] = set.members;
  const members = told.map((m) => ({
    ...m,
    drive: m.drive ?? driveNamed(drives, m.name)?.id ?? null,
  }));
  return { ...set, members };
}

/** Tells each drive what it belongs to, and which drives are no drives but sets that a controller shows. */
export function joinSets({ facts }: MachineDocument): void {
  const byId = new Map(facts.drives.map((d) => [d.id, d]));
  for (const set of facts.sets) {
    for (const member of set.members) {
      const drive = member.drive === null ? undefined : byId.get(member.drive);
      if (drive && !drive.memberOf.includes(set.id)) drive.memberOf.push(set.id);
    }
    // A set that a controller shows as one drive carries the same WWN as that drive.
    const shown = set.kind === "virtual drive" && facts.drives.find((d) => isShownAs(d, set.wwn, set.name));
    if (shown) shown.presentedBy = set.name;
  }
}

const isShownAs = (drive: Drive, wwn: string | null, name: string): boolean =>
  (wwn !== null && drive.wwn !== null && findDrive([drive], { wwn }, () => false) === drive) ||
  (wwn === null && drive.model === name);
