import type { Image } from "./image";
import type { Leg, Profile } from "./profile";
import { imageOfLeg, type LegImages, type Roads } from "./roads";

/** One leg of the road as the steps see it: the build as it stands for that leg, and its place in the row. */
export interface LegView<Ground> {
  leg: Leg;
  /** The build with the profile and the image of this leg. */
  plan: Ground;
  /** Begins the ids of the steps of a stepping stone; empty for the last leg, whose ids are the plain ones. */
  prefix: string;
  last: boolean;
  /** The image of this leg on the shelf; null when none is there. */
  imageId: string | null;
}

/** The legs of a build, each with its own view of the build. A stone without an image on the shelf has none. */
export const legViews = <
  G extends LegImages & Pick<Roads, "legs"> & { image: Image | null; profile: Profile | null },
>(
  plan: G,
): LegView<G>[] =>
  plan.legs.map((leg, i, all) => {
    const last = i === all.length - 1;
    const found = imageOfLeg(plan, leg, last);
    return {
      leg,
      last,
      imageId: found?.id ?? null,
      prefix: last ? "" : `stone${i + 1}-`,
      plan: { ...plan, profile: leg.profile, image: found?.image ?? null },
    };
  });
