import type { BootPicture } from "../boot";
import { drivesOf, type Drive } from "../machine";
import {
  cacheView,
  consentViews,
  isToBeMade,
  partitionView,
  setViews,
  type CacheView,
  type ConsentView,
  type PartitionView,
  type SetView,
} from "../storage";
import { evaluateSheet, type Evaluation } from "./evaluate";
import { derive, type Plan, type Sources } from "./plan";
import { roadLines, waysOf, type RoadLine, type WaysView } from "./roads-view";
import type { Sheet } from "./sheet";

/** All that a sheet shows and that follows from it and what it is judged by. */
export interface Judged {
  evaluation: Evaluation;
  roads: RoadLine[];
  ways: WaysView | null;
  /** What the machine starts at the moments of the build; null without a machine. */
  boot: BootPicture | null;
  /** For each drive whose erasing has to be agreed to: what is asked, and how a consent stands. */
  consents: ConsentView[];
  /** The sets that are made of other drives, with their figures. */
  sets: SetView[];
  /** What the installer makes of the target; null where nothing tells it. */
  partitions: PartitionView | null;
  /** What the cache of ZFS takes of the memory; null where none is planned, or nothing tells. */
  cache: CacheView | null;
  /** The virtual drives that controllers show once those sets are made. */
  made: Drive[];
}

export const judgedOf = (plan: Plan, evaluation: Evaluation): Judged => ({
  evaluation,
  roads: roadLines(plan),
  ways: waysOf(plan, evaluation.steps),
  boot: plan.boot,
  consents: consentViews(plan),
  sets: setViews(plan),
  partitions: partitionView(plan),
  cache: cacheView(plan),
  made: drivesOf(plan).filter(isToBeMade),
});

/** The judgement in something that holds it among other things. */
export const judgedIn = ({
  evaluation,
  roads,
  ways,
  boot,
  consents,
  sets,
  partitions,
  cache,
  made,
}: Judged): Judged => ({
  ...{ evaluation, roads, ways, boot, consents, sets, partitions, cache, made },
});

/** What a sheet is judged by, without the sheet: as a page holds it to judge what is being typed. */
export type Ground = Omit<Sources, "sheet">;

/** Judges a sheet that stands on a ground. On the server and in a page it is this, so that both say the same. */
export function judgeOn(ground: Ground, sheet: Sheet): Judged {
  const plan = derive({ ...ground, sheet });
  return judgedOf(plan, evaluateSheet(plan));
}

/** A judgement as one text: two that are equal in it say the same about the same sheet. */
export const verdictText = (sheet: Sheet, judged: Judged): string => JSON.stringify([sheet, judged]);
