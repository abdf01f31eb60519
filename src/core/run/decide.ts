import type { Procedure } from "../procedure";
import { heldBy, holdWords } from "../finding";
import { isGuard, reportThatEnds, type OperationOf } from "../work";
import { fail, ok, type Result } from "../result";
import { proves } from "../storage";
import { acceptanceOf } from "./acceptance";
import type { RunCommand, RunEvent } from "./events";
import { HAND_OVER_GATE } from "./hand-over-gate";
import { compareReadBack } from "./read-back";
import type { RunState } from "./state";

type Verdict = Pick<Extract<RunEvent, { kind: "guard" }>, "verdict" | "names" | "drive">;

/** What a typed answer means to a guard: one of its drives, a drive that must be left alone, or something else. */
function answerGuard(guard: OperationOf<"name drive">, typed: string): Verdict {
  const named = guard.drives.find((d) => proves(typed, { text: d.proof }));
  if (named) return { verdict: "passed", names: named.name, drive: named.id };
  const other = guard.leaveAlone.find((d) => proves(typed, { text: d.tail }));
  return other
    ? {
        verdict: "left-alone drive",
        drive: "",
        names: `This is ${other.name}, which is protected (${other.holds}). Do not write to it.`,
      }
    : {
        verdict: "other drive",
        drive: "",
        names: `This is not ${guard.drives.map((d) => d.name).join(" and not ")}. Check the console again before anything is written.`,
      };
}

/** A reason shorter than this says nothing to whoever reads the record. */
const LEAST_REASON = 8;

/**
 * Decides what a command amounts to in the present state: an event to append, or a refusal that says why. The caller
 * only writes the answer down. A command for a step that is no longer current is refused, so that two windows cannot
 * push a run on twice. `isHeard`: the boot service has heard it from the machine itself.
 */
export function decide(
  plan: Procedure,
  state: RunState,
  command: RunCommand,
  by: string,
  isHeard = false,
): Result<RunEvent> {
  const refuse = (message: string) => fail({ message });
  if (state.status === "handed over" && command.kind !== "note" && command.kind !== "corrected")
    return refuse("This run is handed over: only notes and corrections can be added.");
  const step = plan.steps[state.current];
  switch (command.kind) {
    case "note":
    case "reading":
    case "corrected":
      return ok({ ...command, by });
    case "resumed":
      return state.status === "stopped" ? ok({ ...command, by }) : refuse("The run is not stopped.");
    case "settled":
      return decideLine(plan, state, command, by);
    case "handed over":
      return decideHandOver(plan, state, command, by);
    default:
  }
  if (state.status === "stopped")
    return refuse(`The run is stopped: ${state.stoppedBy ?? ""} Record what was done about it, then resume.`);
  if (!step || step.id !== command.step)
    return refuse(
      `This step is no longer the current one${step ? `; the current step is "${step.title}"` : ""}. Another window may have continued the run.`,
    );
  if (command.kind === "guard") {
    if (step.kind !== "name drive") return refuse("This step has no guard.");
    if (command.typed.trim() === "") return refuse("Type what the console shows.");
    const answer = answerGuard(step, command.typed);
    const before = state.named.find((n) => n.group === step.group && n.drive === answer.drive);
    if (answer.verdict === "passed" && answer.drive !== "" && before)
      return refuse("This drive was already identified. Identify the next one.");
    return ok({ ...command, ...answer, by });
  }
  if (command.kind === "read back") {
    if (step.kind !== "read back") return refuse("This step has no value to verify.");
    const read = compareReadBack(step, command);
    return read.ok ? ok({ ...command, differs: read.value, by }) : read;
  }
  if (isGuard(step) && command.kind !== "differs")
    return refuse(
      step.kind === "read back"
        ? "This step cannot be passed or skipped: enter what the console is about to do."
        : "A guard cannot be passed or skipped without identifying the drive.",
    );
  if (isGuard(step) && command.kind === "differs" && command.decision === "go on")
    return refuse("A guard cannot be confirmed while values differ: go back or stop.");
  const goesOnAllTheSame = command.kind === "differs" && command.decision === "go on";
  const excuse = command.kind === "skipped" ? command.reason : goesOnAllTheSame ? command.seen : null;
  if (step.must && excuse !== null && excuse.length < LEAST_REASON)
    return refuse(`${step.must} State why the run continues without it; the reason is recorded.`);
  if (command.kind === "as expected" && reportThatEnds(step) && !isHeard)
    return refuse(
      "The requests and reports of the machine end this step. If they do not arrive, report a difference, or skip the step with a reason.",
    );
  const goesOn = command.kind === "as expected" || goesOnAllTheSame;
  if (goesOn && !guardsPassed(plan, state)) return refuse("The guard before this step was not passed.");
  if (command.kind === "as expected" && step.records && !command.words)
    return refuse(`${step.records}: enter it; it is recorded.`);
  return ok({ ...command, by });
}

/** Every guard that stands right before the current step was passed. */
function guardsPassed(plan: Procedure, state: RunState): boolean {
  const before = plan.steps.slice(0, state.current);
  const guards = before.slice(before.findLastIndex((s) => !isGuard(s)) + 1);
  return guards.every((g) => state.guardsPassed.includes(g.id));
}

type Settling = Extract<RunCommand, { kind: "settled" }>;

/** What was not seen may be answered by eye; what differs is taken as it is only with a reason. */
function decideLine(plan: Procedure, state: RunState, command: Settling, by: string): Result<RunEvent> {
  const line = acceptanceOf(plan, state).find((l) => l.id === command.line);
  if (!line) return fail({ message: "The acceptance has no such line." });
  if (line.verdict === "as planned")
    return fail({ message: `${line.what} matches the plan: nothing to resolve.` });
  if (command.how === "seen" && line.verdict === "differs")
    return fail({
      message: `${line.what} was collected and does not match. You can accept the deviation with a reason.`,
    });
  if (command.how === "taken as it is" && command.words.length < LEAST_REASON)
    return fail({ message: "State why the deviation is acceptable; the reason is recorded." });
  return ok({ ...command, found: line.found, by });
}

type HandingOver = Extract<RunCommand, { kind: "handed over" }>;

/** What still stands in the way of handing over, as rules; see HAND_OVER_GATE. */
function decideHandOver(
  plan: Procedure,
  state: RunState,
  command: HandingOver,
  by: string,
): Result<RunEvent> {
  const held = heldBy(HAND_OVER_GATE, {
    stoppedBy: state.status === "stopped" ? (state.stoppedBy ?? "") : null,
    step: plan.steps[state.current]?.title ?? null,
    isVerified: state.acceptance !== null,
    lines: acceptanceOf(plan, state),
  });
  return held.length === 0
    ? ok({ ...command, by })
    : { ok: false, problems: held.map((f) => ({ message: holdWords(f) })) };
}
