import type { RateSample } from "../estimate";
import { secondsBetween } from "../units";
import type { RunPlan } from "./events";
import type { RunState } from "./state";

/** Under this many seconds a transfer says more about the person's finger than about the link. */
const LEAST_SECONDS = 5;
/** Far beyond its late time nobody was there to press the key, so the time is not the transfer's. */
const MOST_LATE = 2;

/**
 * The measurement that a step gives when it ends now: the bytes that it moved by the seconds that it took. Null for a
 * step that moves nothing, and where the time is too short or too long to be the transfer's own.
 */
export function measuredTransfer(
  plan: RunPlan,
  state: RunState,
  at: string,
): { step: string; sample: RateSample } | null {
  const step = plan.steps[state.current];
  const startedAt = state.steps[state.current]?.startedAt;
  if (!step?.moves || !startedAt) return null;
  const seconds = secondsBetween(startedAt, at);
  if (seconds < LEAST_SECONDS || seconds > step.duration.lateSeconds * MOST_LATE) return null;
  const where = [plan.machineName, plan.siteName, plan.number].join(", ");
  return { step: step.id, sample: { ...step.moves, seconds, at, where } };
}
