import type { BuildView, Sheet } from "@/core/build";
import type { Zone } from "@/core/finding";
import type { FieldMark } from "../fields/fields";

/** What every zone of the sheet gets: the draft, what follows from it, and how to change it. */
export interface ZoneProps {
  view: BuildView;
  sheet: Sheet;
  edit: (changes: Record<string, unknown>) => void;
  marks: (path: string) => FieldMark[];
}

export const marksOf =
  (view: BuildView) =>
  (path: string): FieldMark[] =>
    view.evaluation.findings
      .filter((f) => f.at === path && !f.waiver)
      .map(({ label, severity }) => ({ label, severity }));

export type { Zone };
