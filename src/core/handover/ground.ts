import type { Profile } from "../image";
import type { Site } from "../site";
import type { HandOverSlice } from "./slice";

/** What the rules about the hand-over look at. */
export interface HandOverGround {
  sheet: { handOver: HandOverSlice };
  now: string;
  /** The day that it is where the machine stands. */
  today: string;
  site: Site | null;
  profile: Profile | null;
}
