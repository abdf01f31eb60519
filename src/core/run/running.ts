import { numberWords, type Procedure } from "../procedure";
import type { Operation } from "../work";
import { addSeconds } from "../units";
import type { LoggedEvent } from "./events";
import { stillToUndo } from "./undo";
import { foldRun, nextHands, type RunState } from "./state";

/** A stretch of a running build on the hands line: hands-on or waiting, from the log where it happened, else as estimated. */
export interface Stretch {
  from: string;
  to: string;
  kind: "hands" | "wait";
  past: boolean;
  title: string;
}

/** A running build as the first page shows it. */
export interface RunningRow {
  id: string;
  machine: string;
  subject: string;
  number: string;
  status: string;
  step: string;
  position: string;
  hands: { at: string; what: string; late: boolean } | null;
  /** What stands for the installation only. */
  undo: string[];
  stretches: Stretch[];
  timeZone: string;
}

/** What was done, when it was done; what is being done, until now at least; and what is to come, one after the other. */
export function stretchesOf(steps: readonly Operation[], state: RunState, now: string): Stretch[] {
  let cursor = now;
  return steps.flatMap((step, i): Stretch[] => {
    const own = state.steps[i];
    const kind = step.kind === "wait" ? "wait" : "hands";
    if (own?.startedAt && own.endedAt)
      return [{ from: own.startedAt, to: own.endedAt, kind, past: true, title: step.title }];
    if (i < state.current || state.status === "handed over") return [];
    const from = own?.startedAt ?? cursor;
    const planned = addSeconds(from, step.duration.likelySeconds);
    cursor = planned > now ? planned : now;
    return [{ from, to: cursor, kind, past: false, title: step.title }];
  });
}

export function runningRow(
  id: string,
  plan: Procedure,
  log: readonly LoggedEvent[],
  now: string,
): RunningRow {
  const state = foldRun(plan.steps, log);
  const last = plan.steps.length;
  return {
    id,
    machine: plan.machine.name,
    subject: plan.subject,
    number: numberWords(plan),
    status: state.status,
    step: plan.steps[state.current]?.title ?? "Accept and hand over",
    position: `${Math.min(state.current + 1, last)} of ${last}`,
    hands: nextHands(plan.steps, state, now),
    undo: stillToUndo(state.strip),
    stretches: stretchesOf(plan.steps, state, now),
    timeZone: plan.site.timeZone,
  };
}
