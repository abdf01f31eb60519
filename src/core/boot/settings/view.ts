import type { SettingKey } from "./catalogue";

/** What a build wants a setting to be, and because of what. */
export interface Wanted {
  key: SettingKey;
  value: string;
  why: string;
  /** It follows from nothing that this build needs, so that the site may want it otherwise. */
  isUsual?: boolean;
  /** The site wants it otherwise, and this build cannot do with that. */
  siteWants?: string;
}

/** A line of the settings sheet. */
export interface SettingView extends Wanted {
  title: string;
  /** Other words for it, and where it usually stands. */
  words: string;
  where: string;
  /** As it was found: read by a tool, or typed; null while nobody has looked. */
  found: { value: string; from: string } | null;
  /** What was done about it at the machine. */
  done: "" | "set" | "left" | "cannot be set";
  /** Found is what is wanted; null where the two cannot be compared. */
  isAsWanted: boolean | null;
}
