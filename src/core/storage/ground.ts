import type { Profile, Road } from "../image";
import {
  contentsToday,
  drivesOf,
  holdsData,
  isUnread,
  standingWords,
  type Drive,
  type OnMachine,
} from "../machine";
import { proofOf, proves } from "./proof";
import type { Consent, StorageSlice } from "./slice";
import { setDrivesOf } from "./sets/ground";
import { targetSeats, type TargetSeat } from "./target";

/** What the rules about drives look at. */
export interface StorageGround extends OnMachine {
  sheet: { storage: StorageSlice; image: { road: Road }; boot: { mode: "uefi" | "legacy" } };
  profile: Profile | null;
  /** The chosen road leaves the system on the target in place, so nothing is erased. */
  keepsSystem: boolean;
  /** The day that it is where the machine stands. */
  today: string;
}

type OnDrives = OnMachine & { sheet: { storage: StorageSlice } };

/** The drive that the system is installed on, of a set its first one; null while none is chosen or it is not there. */
export const targetOf = ({ sheet, machine }: OnDrives): Drive | null =>
  machine?.document.facts.drives.find((d) => d.id === sheet.storage.target) ?? null;

/** The drives of the target that are among the machine's facts, the first one first, each with its role. */
export const targetsOf = ({ sheet, machine }: OnDrives): { drive: Drive; role: TargetSeat["role"] }[] =>
  targetSeats(sheet.storage).flatMap(({ drive: id, role }) => {
    const drive = machine?.document.facts.drives.find((d) => d.id === id);
    return drive ? [{ drive, role }] : [];
  });

/** All drives that the build erases: those of the target, unless its road keeps the system, and those of the planned sets. */
export function erasedDrives(ground: OnDrives & { keepsSystem: boolean }): Drive[] {
  const target = ground.keepsSystem ? [] : targetsOf(ground).map((t) => t.drive);
  return [...new Set([...target, ...setDrivesOf(ground)])];
}

/**
 * The consent to erase a drive, and whether it still holds: it was given by naming this drive, for what stands on it
 * now. Null when nobody has agreed.
 */
export function consentFor(ground: OnDrives, drive: Drive): { consent: Consent; holds: boolean } | null {
  const consent = ground.sheet.storage.erase.find((c) => c.drive === drive.id);
  if (!consent) return null;
  const named = proves(consent.typed, proofOf(drive, drivesOf(ground)));
  return {
    consent,
    holds: named && consent.holds !== null && contentsToday(consent.holds) === standingWords(drive),
  };
}

/** Something stands on a drive that is erased, or nobody has looked, and no consent to that holds. */
export const wantsConsent = (ground: OnDrives, drive: Drive): boolean =>
  (holdsData(drive) || isUnread(drive)) && !consentFor(ground, drive)?.holds;
