import { sumDurations } from "../estimate";
import { imageOfLeg, type Aspect, type Road } from "../image";
import { factsOf } from "../machine";
import { portRate, type WayPlan } from "../media";
import { runStage, settleStage } from "./run-stages";
import type { Operation } from "../work";
import { readShare, type Plan } from "./plan";

/** A road as the sheet shows it beside the others. */
export interface RoadLine {
  road: Road;
  open: boolean;
  why: string;
  legs: { words: string; through: string; image: string | null }[];
  keeps: Aspect[];
  loses: Aspect[];
  words: string[];
  likelySeconds: number;
  lateSeconds: number;
}

export const roadLines = (plan: Plan): RoadLine[] =>
  plan.roads.map(({ road, legs, keeps, loses, why, likelySeconds, lateSeconds }) => ({
    road,
    open: legs.length > 0,
    why,
    legs: legs.map((leg, i) => ({
      words: `${leg.kind === "fresh" ? "install" : leg.kind} ${leg.profile.name} ${leg.version}`,
      through: leg.through,
      image: imageOfLeg(plan, leg, i === legs.length - 1)?.image.name ?? null,
    })),
    keeps,
    loses,
    words: legs.map((l) => l.fate.words).filter(Boolean),
    likelySeconds,
    lateSeconds,
  }));

/** The ways side by side, and what it takes to compare them for a number of machines. */
export interface WaysView {
  plans: readonly WayPlan[];
  /** Hands of an attended installation, against which an answer file is weighed; null where the profile takes none. */
  attendedSeconds: number | null;
  /** Bytes that one machine reads, and the rate of its port, for the shared link. */
  bytes: number;
  portBytesPerSecond: number;
}

/** The ways of a build; null without an image, and on a road that starts from no media. */
export function waysOf(plan: Plan, steps: readonly Operation[]): WaysView | null {
  const { image, profile, ways } = plan;
  if (!image || !ways) return null;
  const attended = sumDurations(
    steps.filter((s) => s.zone === runStage.zone || s.zone === settleStage.zone).map((s) => s.duration),
  ).handsSeconds;
  return {
    plans: ways,
    attendedSeconds: profile && profile.answerFile !== "none" ? attended : null,
    bytes: image.sizeBytes * readShare(profile),
    portBytesPerSecond: portRate(factsOf(plan)).bytesPerSecond,
  };
}
