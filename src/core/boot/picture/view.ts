import type { CardModuleView } from "../cards/view";
import type { SchoolView } from "../devices/view";
import type { EntryView } from "../entries/view";
import type { SettingView } from "../settings/view";
import type { ReasonCode } from "../resolve";

/** The id under which the medium of the plan stands in the picture. */
export const MEDIUM = "medium";

export const MOMENTS = ["now", "to install", "first restart", "power loss"] as const;
export type Moment = (typeof MOMENTS)[number];

/** What a moment comes to, against what the plan wants of it. */
export type Verdict =
  "as wanted" | "installer again" | "another system" | "nowhere" | "medium not started" | "as it is";

export interface Try {
  device: string | null;
  /** The device's name, else the entry's. */
  name: string;
  via: "once" | "order" | "set-up";
  outcome: "starts" | "skipped" | "fails" | "hangs" | "returns";
  /** Why it does not start, as its code and in words; null where it does. */
  reason: ReasonCode | null;
  why: string | null;
  seconds: number;
}

export interface MomentView {
  moment: Moment;
  title: string;
  /** The medium is taken to stay in although the steps take it out: what a forgotten one would do. */
  mediumIn: boolean;
  tries: Try[];
  /** What stands behind in the order and is not reached. */
  rest: { device: string; name: string }[];
  ends: string;
  /** The device from which something runs at the end; null where nothing does. */
  endsAt: string | null;
  /** The same for a sentence about what is taken for granted: if this, else that. */
  depends: { on: string; otherwise: string; verdict: Verdict; isFirmware: boolean }[];
  verdict: Verdict;
}

/** The starts of a machine at the moments of a build, each with the path that it takes. */
export interface BootPicture {
  moments: MomentView[];
  /** The list of the firmware as it was read, each entry with whose it is. */
  entries: EntryView[];
  /** The module for boot cards; null where the machine has none. */
  cards: CardModuleView | null;
  /** What the build wants the firmware to be set to. */
  settings: SettingView[];
  /** What the system could be started from on this machine, side by side. */
  schools: SchoolView[];
  /** What the phone is told. */
  story: string;
  /** Whether the list of the firmware was read; where it was not, an empty one is taken. */
  isListRead: boolean;
}
