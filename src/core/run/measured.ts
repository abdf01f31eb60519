import type { Procedure } from "../procedure";
import type { RateSample, StepTime } from "../estimate";
import { secondsBetween } from "../units";
import { measureOf } from "../work";

import type { RunState } from "./state";

/** Under this many seconds a transfer says more about the person's finger than about the link. */
const LEAST_SECONDS = 5;
/** Far beyond its late time nobody was there to press the key, so the time is not the transfer's. */
const MOST_LATE = 2;

/**
 * The measurement that a step gives when it ends now: the bytes that it moved by the seconds that it took. Null for a
 * step that moves nothing, and where the time is too short or too long to be the transfer's own. `took`: the seconds where
 * the machine itself told them, since a person may have come to the step when half of it was over.
 */
export function measuredTransfer(
  plan: Procedure,
  state: RunState,
  at: string,
  took?: number,
): { step: string; sample: RateSample } | null {
  const taken = takenBy(plan, state, at, took);
  const moved = taken && measureOf(taken.step, "transfer");
  if (!moved) return null;
  const { way, through, bytes } = moved;
  return {
    step: taken.step.id,
    sample: { way, through, bytes, seconds: taken.seconds, at, where: whereOf(plan) },
  };
}

/** How long a wait took that ends now; null for other steps, and where nobody was there to see its end. */
export function measuredStep(
  plan: Procedure,
  state: RunState,
  at: string,
  took?: number,
): { step: string; time: StepTime } | null {
  const taken = takenBy(plan, state, at, took);
  const wait = taken && measureOf(taken.step, "wait");
  if (!wait) return null;
  const { step, seconds } = taken;
  return {
    step: step.id,
    time: { screen: wait.what, model: plan.machine.model, seconds, at, where: whereOf(plan) },
  };
}

const whereOf = (plan: Procedure): string => [plan.machine.name, plan.site.name, plan.number].join(", ");

/** The current step and the plausible time that it took; null where the time is the person's and not the step's. */
function takenBy(plan: Procedure, state: RunState, at: string, took?: number) {
  const step = plan.steps[state.current];
  const startedAt = state.steps[state.current]?.startedAt;
  if (!step || !startedAt) return null;
  const seconds = took ?? secondsBetween(startedAt, at);
  return seconds < LEAST_SECONDS || seconds > step.duration.lateSeconds * MOST_LATE
    ? null
    : { step, seconds };
}
