import type { Duration, Figure, Way } from "../../estimate";

/** A boot source, as a person chooses it. */
export const wayWords: Record<Way, string> = {
  "virtual media": "virtual media",
  stick: "USB stick",
  network: "network boot",
  disc: "optical disc",
};

/** What the way starts from, for sentences: "the virtual CD". */
export const mediumWords: Record<Way, string> = {
  "virtual media": "virtual CD",
  stick: "USB stick",
  network: "network",
  disc: "optical disc",
};

/** One way, judged for this machine and image, with its times. */
export interface WayPlan {
  way: Way;
  verdict: "possible" | "not certain" | "not possible";
  /** Why; the first is the weightiest. */
  reasons: string[];
  preparation: string[];
  risks: string[];
  /** Done once, however many machines there are. */
  once: Duration;
  /** For each machine. */
  each: Duration;
  /** The working of the longest part. */
  figure: Figure;
  /** Whether several machines can read at the same time. */
  parallel: boolean;
}
