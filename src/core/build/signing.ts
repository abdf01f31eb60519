import { contentWords, driveLook, holdsData, isUnread, standingWords } from "../machine";
import { fail, ok, type Result } from "../result";
import { proofOf, proofWords, proves } from "../storage";
import { consentFor, drivesOf, targetsOf, type BuildContext } from "./context";
import { keepsSystem } from "./roads";
import type { Consent, Sheet } from "./sheet";
import type { ConsentView } from "./view";

const READER = "its label or a console shows it";

/**
 * A person agrees to the erasing of a drive of the target by typing what names it. It holds for this drive with what
 * stands on it now. Refused for other drives, and for what names another one.
 */
export function consentTo(
  context: BuildContext,
  driveId: string,
  typed: string,
  by: string,
  at: string,
): Result<Consent> {
  const drive = targetsOf(context).find((t) => t.drive.id === driveId)?.drive;
  if (!drive) return fail({ message: "This drive is not among the drives of the target." });
  const proof = proofOf(drive, drivesOf(context));
  if (!proves(typed, proof))
    return fail({
      message: `This does not name ${driveLook(drive)}. Asked for: ${proofWords(proof, READER)}.`,
    });
  return ok({ drive: driveId, typed: typed.trim().slice(0, 200), holds: standingWords(drive), by, at });
}

/** What an edit would sign in somebody's name; null when it signs nothing. Signatures may end by an edit. */
export function signedAnew(before: Sheet, after: Sheet): string | null {
  const isNew = (list: readonly unknown[]) => {
    const known = new Set(list.map((one) => JSON.stringify(one)));
    return (one: unknown): boolean => !known.has(JSON.stringify(one));
  };
  if (after.storage.erase.some(isNew(before.storage.erase)))
    return "A consent to erase is given by naming the drive, and not by an edit.";
  return after.waivers.some(isNew(before.waivers))
    ? "A finding is set aside with a reason, and not by an edit."
    : null;
}

/** What the sheet asks about the drives that it erases; nothing on a road that keeps the system. */
export function consentViews(context: BuildContext): ConsentView[] {
  if (keepsSystem(context)) return [];
  return targetsOf(context)
    .filter(({ drive }) => holdsData(drive) || isUnread(drive))
    .map(({ drive }) => {
      const given = consentFor(context, drive);
      return {
        drive: drive.id,
        look: driveLook(drive),
        holds: contentWords(drive),
        asks: proofWords(proofOf(drive, drivesOf(context)), READER),
        given: given && {
          by: given.consent.by,
          at: given.consent.at,
          holds: given.holds,
          was: given.consent.holds,
        },
      };
    });
}
