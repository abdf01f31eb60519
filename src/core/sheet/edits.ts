import { applyEditsTo, diffDocuments, type Edit } from "../document";
import type { Result } from "../result";
import { sheetSchema, type Sheet } from "./sheet";

/** The fields that differ, as edits from the first sheet to the second. */
export const diffSheets = (from: Sheet, to: Sheet): Edit[] => diffDocuments(from, to);

/** Applies edits to a copy. A path that the sheet does not have, or a value of the wrong kind, is a problem. */
export const applyEdits = (sheet: Sheet, edits: readonly Edit[]): Result<Sheet> =>
  applyEditsTo({ kind: "sheet", schema: sheetSchema }, sheet, edits);

/** Revision letters as on drawings: A to Z without I and O, then AA. */
export function nextRevision(last: string | null): string {
  const letters = "ABCDEFGHJKLMNPQRSTUVWXYZ";
  if (last === null) return "A";
  const at = letters.indexOf(last.slice(-1));
  return at === letters.length - 1
    ? `${nextRevision(last.slice(0, -1) || null)}A`
    : last.slice(0, -1) + letters[at + 1];
}

/** What an edit would sign in somebody's name; null when it signs nothing. Signatures may end by an edit. */
export function signedAnew(before: Sheet, after: Sheet): string | null {
  const isNew = (list: readonly unknown[]) => {
    const known = new Set(list.map((one) => JSON.stringify(one)));
    return (one: unknown): boolean => !known.has(JSON.stringify(one));
  };
  if (after.storage.erase.some(isNew(before.storage.erase)))
    return "Erasing a drive is confirmed by identifying the drive, not by an edit.";
  return after.waivers.some(isNew(before.waivers))
    ? "A finding is waived with a reason, not by an edit."
    : null;
}
