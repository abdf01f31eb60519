import { contentWords, driveLook, drivesOf, holdsData, isUnread, standingWords } from "../machine";
import { fail, ok, type Result } from "../result";
import { consentFor, erasedDrives, targetsOf, type StorageGround } from "./ground";
import { proofOf, proofWords, proves } from "./proof";
import type { Consent } from "./slice";

/** A drive that is erased only once a person has agreed; `asks` holds no character of the answer. */
export interface ConsentView {
  drive: string;
  look: string;
  holds: string;
  asks: string;
  given: { by: string; at: string; holds: boolean; was: string | null } | null;
}

const READER = "as on its label or a console";

/**
 * A person agrees to the erasing of a drive by typing what names it. It holds for this drive with what
 * stands on it now. Refused for other drives, and for what names another one.
 */
export function consentTo(
  ground: StorageGround,
  driveId: string,
  typed: string,
  by: string,
  at: string,
): Result<Consent> {
  const named = [...targetsOf(ground).map((t) => t.drive), ...erasedDrives(ground)];
  const drive = named.find((d) => d.id === driveId);
  if (!drive) return fail({ message: "This drive is neither the target nor planned for an array or pool." });
  const proof = proofOf(drive, drivesOf(ground));
  if (!proves(typed, proof))
    return fail({
      message: `This does not identify ${driveLook(drive)}. Required: ${proofWords(proof, READER)}.`,
    });
  return ok({ drive: driveId, typed: typed.trim().slice(0, 200), holds: standingWords(drive), by, at });
}

/** What the sheet asks about the drives that it erases; of a target nothing on a road that keeps the system. */
export function consentViews(ground: StorageGround): ConsentView[] {
  return erasedDrives(ground)
    .filter((drive) => holdsData(drive) || isUnread(drive))
    .map((drive) => {
      const given = consentFor(ground, drive);
      return {
        drive: drive.id,
        look: driveLook(drive),
        holds: contentWords(drive),
        asks: proofWords(proofOf(drive, drivesOf(ground)), READER),
        given: given && {
          by: given.consent.by,
          at: given.consent.at,
          holds: given.holds,
          was: given.consent.holds,
        },
      };
    });
}
