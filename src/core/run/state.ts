import { keysOf } from "../text";
import { isGuard, NOTHING_TO_PUT_BACK, type Operation, type Strip } from "../work";
import { addSeconds } from "../units";
import { otherChassis, type AcceptanceLine } from "../verify";
import type { LoggedEvent } from "./events";
import { readBackStop } from "./read-back";
import { happened } from "./times";

export interface StepState {
  /** "waiting" is not reached yet; "differs" was done with a deviation. */
  state: "waiting" | "current" | "done" | "differs" | "skipped";
  startedAt: string | null;
  endedAt: string | null;
}

export interface Deviation {
  seq: number;
  at: string;
  step: string;
  seen: string;
  decision: string;
}

/** A person's word on a line, for what was found then. */
export interface Settled {
  how: "seen" | "taken as it is";
  words: string;
  found: string;
  by: string;
  at: string;
}

export interface RunState {
  status: "running" | "stopped" | "steps done" | "handed over";
  /** Why it stands still, in the words of the event that stopped it. */
  stoppedBy: string | null;
  startedAt: string | null;
  endedAt: string | null;
  /** Index into the steps; equal to their number when all are done. */
  current: number;
  steps: StepState[];
  strip: Required<Strip>;
  /** The guard of the step was passed, by id of the guard step. */
  guardsPassed: string[];
  /** Drives that were named, by the guard step that they passed. */
  named: { step: string; group: string; drive: string }[];
  /** What steps asked to be written down. */
  written: { step: string; words: string; by: string; at: string }[];
  timer: { step: string; startedAt: string; likelyAt: string; lateAt: string } | null;
  deviations: Deviation[];
  acceptance: { at: string; from: string; lines: AcceptanceLine[] } | null;
  /** What persons decided about lines of the acceptance, by line. */
  settled: Record<string, Settled>;
  handedTo: string | null;
}

const start = (steps: readonly Operation[]): RunState => ({
  status: "running",
  stoppedBy: null,
  startedAt: null,
  endedAt: null,
  current: 0,
  steps: steps.map(() => ({ state: "waiting", startedAt: null, endedAt: null })),
  strip: {
    power: "off",
    media: "none",
    nextBoot: "as ordered",
    firmware: NOTHING_TO_PUT_BACK,
    target: "untouched",
  },
  guardsPassed: [],
  named: [],
  written: [],
  timer: null,
  deviations: [],
  acceptance: null,
  settled: {},
  handedTo: null,
});

/** The state of a run is a fold over its log; the same log gives the same state, on any machine, at any time. */
export function foldRun(steps: readonly Operation[], log: readonly LoggedEvent[]): RunState {
  const state = start(steps);
  const times = happened(log);
  log.forEach((entry, i) => apply(state, steps, { ...entry, at: times[i]! }));
  return state;
}

function enter(state: RunState, steps: readonly Operation[], index: number, at: string): void {
  state.current = index;
  state.timer = null;
  const step = steps[index];
  const own = state.steps[index];
  if (!step || !own) {
    state.status = "steps done";
    return;
  }
  Object.assign(own, { state: "current", startedAt: at, endedAt: null });
  if (step.kind === "wait") startTimer(state, step, at);
}

function startTimer(state: RunState, step: Operation, at: string): void {
  const { likelySeconds, lateSeconds } = step.duration;
  state.timer = {
    step: step.id,
    startedAt: at,
    likelyAt: addSeconds(at, likelySeconds),
    lateAt: addSeconds(at, lateSeconds),
  };
}

const PUT_RIGHT: Strip = { media: "none", nextBoot: "as ordered", firmware: NOTHING_TO_PUT_BACK };

/**
 * How a step leaves the strip. Where the screen showed something else, nothing counts as taken out or put back; what was
 * skipped may have been done before, so media and boot order may stand as it would have left them, and nothing else.
 */
function effectOf(after: Strip, how: StepState["state"]): Strip {
  if (how === "done") return after;
  const stands = keysOf(after).filter(
    (part) => PUT_RIGHT[part] !== after[part] && (how !== "skipped" || part in PUT_RIGHT),
  );
  return Object.fromEntries(stands.map((part) => [part, after[part]]));
}

function leave(state: RunState, steps: readonly Operation[], how: StepState["state"], at: string): void {
  const own = state.steps[state.current];
  const step = steps[state.current];
  if (!own || !step) return;
  Object.assign(own, { state: how, endedAt: at });
  Object.assign(state.strip, effectOf(step.after, how));
  enter(state, steps, state.current + 1, at);
}

function goBack(state: RunState, steps: readonly Operation[], at: string): void {
  const own = state.steps[state.current];
  if (own) Object.assign(own, { state: "waiting", startedAt: null, endedAt: null });
  // A guard belongs to the step behind it: going back into a destructive step goes back to its guard.
  let index = Math.max(0, state.current - 1);
  while (index > 0 && isGuard(steps[index - 1]!)) index -= 1;
  for (const id of steps.slice(index).map((s) => s.id)) forgetGuard(state, id);
  for (const later of state.steps.slice(index)) Object.assign(later, { state: "waiting", endedAt: null });
  enter(state, steps, index, at);
}

function forgetGuard(state: RunState, id: string): void {
  state.guardsPassed = state.guardsPassed.filter((g) => g !== id);
  state.named = state.named.filter((n) => n.step !== id);
}

function stop(state: RunState, why: string): void {
  state.status = "stopped";
  state.stoppedBy = why;
}

function apply(state: RunState, steps: readonly Operation[], { seq, at, event }: LoggedEvent): void {
  switch (event.kind) {
    case "started":
      state.startedAt = at;
      enter(state, steps, 0, at);
      break;
    case "guard":
      if (event.verdict === "passed") {
        state.guardsPassed.push(event.step);
        const step = steps[state.current];
        const group = step?.kind === "name drive" ? step.group : "";
        state.named.push({ step: event.step, group, drive: event.drive });
        leave(state, steps, "done", at);
      } else {
        state.deviations.push({
          seq,
          at,
          step: event.step,
          seen: `typed "${event.typed}": ${event.names}`,
          decision: "stop",
        });
        stop(state, event.names);
      }
      break;
    case "read back":
      if (event.differs.length === 0) {
        state.guardsPassed.push(event.step);
        leave(state, steps, "done", at);
      } else {
        const seen = readBackStop(event, event.differs);
        state.deviations.push({ seq, at, step: event.step, seen, decision: "stop" });
        stop(state, seen);
      }
      break;
    case "as expected":
      if (event.words) state.written.push({ step: event.step, words: event.words, by: event.by, at });
      leave(state, steps, "done", at);
      break;
    case "differs":
      state.deviations.push({ seq, at, step: event.step, seen: event.seen, decision: event.decision });
      if (event.decision === "go on") leave(state, steps, "differs", at);
      else if (event.decision === "go back") goBack(state, steps, at);
      else stop(state, event.seen);
      break;
    case "skipped":
      state.deviations.push({
        seq,
        at,
        step: event.step,
        seen: `skipped: ${event.reason}`,
        decision: "go on",
      });
      leave(state, steps, "skipped", at);
      break;
    case "timer": {
      const step = steps.find((s) => s.id === event.step);
      if (step) startTimer(state, step, at);
      break;
    }
    case "resumed":
      state.status = state.current >= steps.length ? "steps done" : "running";
      state.stoppedBy = null;
      break;
    case "accepted":
      accept(state, steps, { seq, at }, event);
      break;
    case "settled": {
      const { how, words, found, by } = event;
      state.settled[event.line] = { how, words, found, by, at };
      break;
    }
    case "handed over":
      state.status = "handed over";
      state.handedTo = event.to;
      state.endedAt = at;
      break;
    case "damaged": {
      const why = `Entry ${seq} of the log is damaged and ignored (${event.why}). Check the machine, and record the state of the run.`;
      state.deviations.push({ seq, at, step: steps[state.current]?.id ?? "", seen: why, decision: "stop" });
      stop(state, why);
      break;
    }
    case "note":
    case "reading":
    case "corrected":
      break;
  }
}

/**
 * Lines that a new reading answers take the place of the old ones; what it does not tell stays as it was. A reading of
 * another chassis answers nothing: the run stops.
 */
function accept(
  state: RunState,
  steps: readonly Operation[],
  { seq, at }: { seq: number; at: string },
  { from, lines }: Extract<LoggedEvent["event"], { kind: "accepted" }>,
): void {
  const chassis = otherChassis(lines);
  if (chassis) {
    const why = `${from} comes from another machine: chassis serial ${chassis.found}, planned ${chassis.planned}. Nothing of it was accepted.`;
    const step = steps.find((s) => s.kind === "collect")?.id ?? "";
    state.deviations.push({ seq, at, step, seen: why, decision: "stop" });
    return stop(state, why);
  }
  const before = new Map(state.acceptance?.lines.map((l) => [l.id, l]));
  state.acceptance = {
    at,
    from: state.acceptance ? `${state.acceptance.from}; ${from}` : from,
    lines: lines.map((l) => (l.verdict === "not seen" ? (before.get(l.id) ?? l) : l)),
  };
}

/** What comes after a wait, with what ends it: "Unmap the virtual CD, once the system is written to the disk". */
const afterWait = (next: string, wait: string): string => {
  const what = wait.replace(/^Wait: /, "");
  return what === wait
    ? `${next}, after: ${wait}`
    : `${next}, once ${what.charAt(0).toLowerCase()}${what.slice(1)}`;
};

/** When a person is needed next and for what; null when the run needs nobody. While a wait runs, that is its likely end. */
export function nextHands(
  steps: readonly Operation[],
  state: RunState,
  now: string,
): { at: string; what: string; late: boolean } | null {
  if (state.status === "handed over") return null;
  if (state.status === "stopped")
    return { at: now, what: `Decide: ${state.stoppedBy ?? "the run is stopped"}`, late: false };
  const step = steps[state.current];
  if (!step) return { at: now, what: "Accept and hand over", late: false };
  if (step.kind !== "wait" || !state.timer) return { at: now, what: step.title, late: false };
  const next = steps[state.current + 1];
  const due = state.timer.likelyAt > now ? state.timer.likelyAt : now;
  return {
    at: due,
    what: next ? afterWait(next.title, step.title) : step.title,
    late: now > state.timer.lateAt,
  };
}
