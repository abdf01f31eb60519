import type { BuildView, MachineChoice, Sheet, SheetChanges, SheetPath } from "@/core/sheet";
import type { Zone } from "@/core/finding";
import type { FieldMark } from "../fields/fields";
import type { ImageActions } from "../image/take-file";

/** What every zone of the sheet gets: the draft, what follows from it, and how to change it. */
export interface ZoneProps {
  view: BuildView;
  sheet: Sheet;
  edit: (changes: SheetChanges) => void;
  marks: (path: SheetPath) => FieldMark[];
  /** The machines that this sheet can be for. */
  machines: readonly MachineChoice[];
  /** How an image comes onto the sheet that is not on the shelf. */
  images: ImageActions;
  /** The family that an image is taken to be of. */
  like(family: string): Promise<void>;
  /** A person agrees to erase a drive by typing what names it. */
  agree(drive: string, typed: string): Promise<void>;
}

/** What a part of a zone gets that has no acts of its own. */
export type PartProps = Pick<ZoneProps, "view" | "sheet" | "edit" | "marks">;

export const marksOf =
  (view: BuildView) =>
  (path: SheetPath): FieldMark[] =>
    view.evaluation.findings
      .filter((f) => f.at === path && !f.waiver)
      .map(({ label, severity }) => ({ label, severity }));

export type { Zone };
