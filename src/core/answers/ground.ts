import type { Profile } from "../image";
import type { AnswersSlice } from "./slice";

/** What the rules about names, accounts and the installer's questions look at. */
export interface AnswersGround {
  sheet: { answers: AnswersSlice };
  profile: Profile | null;
  site: { name: string; domain: string; timeZone: string } | null;
  /** Who else holds what this sheet claims; `here` at the same site. */
  rivals: readonly { kind: string; key: string; owner: string; here: boolean }[];
}
