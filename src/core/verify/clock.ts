import type { Facts } from "../machine";
import { addSeconds, formatDuration, secondsBetween } from "../units";
import { differs, notSeen, seen, type Seen } from "./seen";

/** The circumstances of a reading. */
export interface Reading {
  /** The time on the machine's own clock when it was read; null where the texts do not tell it. */
  takenAt: string | null;
  /** The time on Derrick's clock when the reading was given to it. */
  now: string;
  /** The time on Derrick's clock before which it cannot have been taken: the installed system did not run yet. */
  since: string | null;
}

/** Clocks of desks and servers differ by so much without anybody noticing. */
const SLACK_SECONDS = 120;

/** Whether the machine's clock fits the time in which it was read, and follows a reference. */
export function lookAtClock({ system }: Facts, { takenAt, now, since }: Reading): Seen {
  const follows = system?.clockFollows ?? null;
  if (takenAt && takenAt > addSeconds(now, SLACK_SECONDS))
    return differs(
      `collected at ${takenAt} by its own clock, ${formatDuration(secondsBetween(now, takenAt))} ahead`,
    );
  if (takenAt && since && takenAt < addSeconds(since, -SLACK_SECONDS))
    return differs(
      `collected at ${takenAt} by its own clock, before the installed system ran (${since}): old data, or a clock that is slow`,
    );
  if (follows === false) return differs("the clock is not synchronised");
  if (follows && takenAt) return seen("synchronised; collected after the last restart", true);
  return follows ? seen("synchronised", true) : notSeen(takenAt ? `collected at ${takenAt}` : "");
}
