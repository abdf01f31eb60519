import { planWays, portRate, type WayPlan } from "../boot";
import { sumDurations } from "../estimate";
import type { Aspect, Road } from "../image";
import { factsOf, type BuildContext } from "./context";
import { imageOfLeg, roadsOf, startsFromMedia } from "./roads";
import { deriveSteps } from "./steps";

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

export const roadLines = (context: BuildContext): RoadLine[] =>
  roadsOf(context).map(({ road, legs, keeps, loses, why, likelySeconds, lateSeconds }) => ({
    road,
    open: legs.length > 0,
    why,
    legs: legs.map((leg, i) => ({
      words: `${leg.kind === "fresh" ? "install" : leg.kind} ${leg.profile.name} ${leg.version}`,
      through: leg.through,
      image: imageOfLeg(context, leg, i === legs.length - 1)?.image.name ?? null,
    })),
    keeps,
    loses,
    words: legs.map((l) => l.fate.words).filter(Boolean),
    likelySeconds,
    lateSeconds,
  }));

/** The ways side by side, and what it takes to compare them for a number of machines. */
export interface WaysView {
  plans: WayPlan[];
  /** Hands of an attended installation, against which an answer file is weighed; null where the profile takes none. */
  attendedSeconds: number | null;
  /** Bytes that one machine reads, and the rate of its port, for the shared link. */
  bytes: number;
  portBytesPerSecond: number;
}

const seen = new WeakMap<BuildContext, WaysView | null>();

/** The ways of a build; null without an image, and on a road that starts from no media. */
export function waysOf(context: BuildContext): WaysView | null {
  const known = seen.get(context);
  if (known !== undefined) return known;
  const ways = compareWays(context);
  seen.set(context, ways);
  return ways;
}

function compareWays(context: BuildContext): WaysView | null {
  const { image, profile, sheet, site, sticks, samples } = context;
  if (!image || !startsFromMedia(context)) return null;
  const facts = factsOf(context);
  const shares = (profile?.screens ?? []).reduce((sum, s) => sum + s.readsShare, 0);
  // A profile that says nothing of it is taken to read the whole image.
  const readShare = shares === 0 ? 1 : Math.min(1, shares);
  const attended = sumDurations(
    deriveSteps(context)
      .filter((s) => s.zone === "H" || s.zone === "I")
      .map((s) => s.duration),
  ).handsSeconds;
  return {
    plans: planWays({
      image,
      readShare,
      mode: sheet.boot.mode,
      facts,
      site,
      sticks,
      stickKey: sheet.image.stick.key,
      samples,
    }),
    attendedSeconds: profile && profile.answerFile !== "none" ? attended : null,
    bytes: image.sizeBytes * readShare,
    portBytesPerSecond: portRate(facts).bytesPerSecond,
  };
}
