import type { OnMachine } from "../machine";
import type { Image } from "./image";
import type { Profile, Road } from "./profile";
import type { Roads, ShelfImage } from "./roads";

/** What the rules about an image, its profile and the road look at. */
export interface ImageGround extends Roads, OnMachine {
  sheet: { image: { id: string | null; edition: number | null; road: Road } };
  /** The day that it is where the machine stands. */
  today: string;
  image: Image | null;
  profile: Profile | null;
  /** Every image, for stepping stones and to see whether a newer one is there. */
  shelf: readonly ShelfImage[];
  /** The editions of the image's profile: the one this sheet is made from, and the newest. */
  edition: { kept: number; newest: number } | null;
}

export const profileName = ({ profile }: { profile: Profile | null }): string =>
  profile ? `${profile.name} ${profile.version}` : "";
