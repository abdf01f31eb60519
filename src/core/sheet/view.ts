import type { SegmentStretch } from "../network";
import type { Problem } from "../result";
import type { Sources } from "./plan";
import type { Ground, Judged } from "./judged";
import type { Sheet } from "./sheet";

/** The sheet as the interface shows it, with all that follows from it. */
export interface BuildView extends Judged {
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
  nextFree: string | null;
  /** The next free name by the site's pattern; null where it has none for such a machine, or the sheet has a free one already. */
  nextName: string | null;
  segmentPlan: SegmentStretch[];
  run: { id: string; endedAt: string | null } | null;
  choices: {
    images: { id: string; name: string }[];
    /** OS families that an image can be like. */
    families: { key: string; name: string; family: string }[];
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

/** What a save adds for a page that has judged the sheet itself, and just as the server did. */
export interface Confirmed extends Pick<BuildView, "nextFree" | "nextName" | "segmentPlan"> {
  build: Omit<BuildView["build"], "sheet">;
}

/** Judges sheets beside the page, so that typing never waits for it. */
export interface SheetJudge {
  stand(on: Ground): void;
  /** Null while it stands on no ground. */
  judge(sheet: Sheet): Promise<{ judged: Judged; verdict: string } | null>;
}
