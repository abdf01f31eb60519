import type { SegmentStretch } from "../network";
import type { Problem } from "../result";
import type { ConsentView } from "../storage";
import type { Sources } from "./plan";
import type { Evaluation } from "./evaluate";
import type { RoadLine, WaysView } from "./roads-view";
import type { Sheet } from "./sheet";

/** The sheet as the interface shows it, with all that follows from it. */
export interface BuildView {
  build: {
    id: string;
    number: string;
    version: number;
    revision: string | null;
    revisionVersion: number | null;
    updatedAt: string;
    sheet: Sheet;
  };
  context: Pick<Sources, "machine" | "site" | "image" | "profile" | "edition">;
  evaluation: Evaluation;
  roads: RoadLine[];
  ways: WaysView | null;
  /** For each drive of the target whose erasing has to be agreed to: what is asked, and how a consent stands. */
  consents: ConsentView[];
  nextFree: string | null;
  segmentPlan: SegmentStretch[];
  run: { id: string; endedAt: string | null } | null;
  choices: {
    images: { id: string; name: string }[];
    sticks: { key: string; name: string }[];
  };
}

/** A machine that a sheet can be for. */
export interface MachineChoice {
  id: string;
  name: string;
  site: string;
}

/** What a save came to: the new state, or the other version that stands in the way. */
export type SaveAnswer =
  | { ok: true; view: BuildView }
  | { ok: false; problems: Problem[]; stale?: { view: BuildView; by: string; at: string } | null };
