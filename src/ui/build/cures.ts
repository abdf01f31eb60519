import { valueAt } from "@/core/document";
import type { PlacedFinding } from "@/core/finding";
import { cureOf, type BuildView, type Cure, type SheetChanges } from "@/core/sheet";
import { shown } from "@/core/text";
import type { NoteActs } from "../findings/note";

const isPlain = (value: unknown): boolean => value === null || typeof value !== "object";

/** "E address: 10.61.10.214 → 10.61.10.6"; of what is no single value its name alone. */
function detailOf({ changes }: Cure, { build }: BuildView, names: Readonly<Record<string, string>>): string {
  return Object.entries(changes)
    .map(([path, after]) => [path, valueAt(build.sheet, path), after] as const)
    .filter(([, before, after]) => JSON.stringify(before) !== JSON.stringify(after))
    .map(([path, before, after]) => {
      const name = names[path] ?? path;
      return isPlain(after) ? `${name}: ${shown(before)} → ${shown(after)}` : name;
    })
    .join("; ");
}

/** The cures that a build sheet offers for its findings, each an edit that can be undone. */
export function curesOf(
  view: BuildView,
  names: Readonly<Record<string, string>>,
  edit: (changes: SheetChanges) => void,
): Pick<NoteActs, "cureOf" | "onCure"> {
  return {
    cureOf: (finding: PlacedFinding) => {
      const cure = cureOf(view, finding);
      return cure && { words: cure.words, detail: detailOf(cure, view, names) };
    },
    onCure: (finding: PlacedFinding) => {
      const cure = cureOf(view, finding);
      if (cure) edit(cure.changes);
    },
  };
}
