import { mediaThrough, mediumWords, networkThrough, type Way } from "../../boot";
import type { Leg } from "../../image";
import { stickOf, type BuildContext } from "../context";
import { imageOfLeg, legsOf } from "../roads";
import type { Moves } from "./make";

/** One leg of the road as the steps see it: the build as it stands for that leg, and its place in the row. */
export interface LegView {
  leg: Leg;
  /** The build with the profile and the image of this leg. */
  context: BuildContext;
  /** Begins the ids of the steps of a stepping stone; empty for the last leg, whose ids are the plain ones. */
  prefix: string;
  last: boolean;
  /** The image of this leg on the shelf; null when none is there. */
  imageId: string | null;
  /** Whether another leg with media went before: the firmware is set already. */
  firmwareSet: boolean;
}

/** The legs of a build, each with its own view of the build. A stone without an image on the shelf has none. */
export function legViews(context: BuildContext): LegView[] {
  const legs = legsOf(context);
  return legs.map((leg, i) => {
    const last = i === legs.length - 1;
    const found = imageOfLeg(context, leg, last);
    return {
      leg,
      last,
      imageId: found?.id ?? null,
      prefix: last ? "" : `stone${i + 1}-`,
      firmwareSet: legs.slice(0, i).some((l) => l.through === "installer"),
      context: { ...context, profile: leg.profile, image: found?.image ?? null },
    };
  });
}

export const wayOf = (context: BuildContext): Way => context.sheet.image.way;
export const isAtMachine = (context: BuildContext): boolean => ["stick", "disc"].includes(wayOf(context));

export const mediaWords = (context: BuildContext): string => {
  const way = wayOf(context);
  return way === "stick" ? stickOf(context).name || "stick" : mediumWords[way];
};

/** What is moved through the medium while a share of the image is read; null where the rate is not worth learning. */
export function movesOf(context: BuildContext, share: number): Moves | null {
  const { image, machine, site } = context;
  const way = wayOf(context);
  if (!image || share === 0 || (way !== "virtual media" && way !== "network")) return null;
  const facts = machine?.document.facts ?? null;
  const through = way === "network" ? networkThrough(site) : mediaThrough(facts, site?.name ?? "");
  return { way, through, bytes: Math.round(image.sizeBytes * share) };
}
