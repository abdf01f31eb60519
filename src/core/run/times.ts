import { addSeconds, secondsBetween } from "../units";
import type { LoggedEvent } from "./events";

/** Under this, the way to the server explains the difference. */
const LEAST_SECONDS = 3;

/**
 * When an answer was given that has arrived `at` and is `ageSeconds` old by the clock of the browser that kept it; null
 * when it came at once. The browser's clock may be wrong by hours: only how long it kept the answer is taken from it.
 */
export function givenBefore(at: string, ageSeconds: number | undefined): string | null {
  return ageSeconds === undefined || ageSeconds < LEAST_SECONDS ? null : addSeconds(at, -ageSeconds);
}

/**
 * When each event of a log happened, in its order: when the answer was given, else when it arrived. No event happens
 * before the one that it follows, whatever a clock said, so no time between two of them is negative.
 */
export function happened(log: readonly LoggedEvent[]): string[] {
  let last = "";
  return log.map(({ at, given }) => {
    const own = given ?? at;
    last = own > last ? own : last;
    return last;
  });
}

export interface ClockJump {
  /** The first event that was written after the clock had gone back. */
  seq: number;
  seconds: number;
}

/** Where the server's clock went back between two events: times around it are not to be trusted. */
export function clockJumps(log: readonly LoggedEvent[]): ClockJump[] {
  return log.flatMap(({ seq, at }, i) => {
    const seconds = i === 0 ? 0 : secondsBetween(at, log[i - 1]!.at);
    return seconds > LEAST_SECONDS ? [{ seq, seconds }] : [];
  });
}
