import { fail, ok, type Result } from "../result";
import type { Guard } from "../build";
import type { RunCommand, RunEvent, RunPlan } from "./events";
import type { RunState } from "./state";

const compact = (text: string): string => text.replace(/[\s.,\u202f]/g, "").toUpperCase();

/** What a typed answer means to a guard: the expected tail, a drive that must be left alone, or something else. */
function answerGuard(
  guard: Guard,
  typed: string,
): { verdict: "passed" | "other drive" | "left-alone drive"; names: string } {
  const answer = compact(typed);
  const expected = compact(guard.expect);
  // A person may read the whole serial aloud: what ends in the tail is right, if it is no shorter than the tail.
  if (answer.endsWith(expected)) return { verdict: "passed", names: guard.target };
  const other = guard.leaveAlone.find((d) => d.tail !== "" && answer.endsWith(compact(d.tail)));
  return other
    ? {
        verdict: "left-alone drive",
        names: `This is ${other.name}, which must be left alone (${other.holds}). Nothing may be written.`,
      }
    : {
        verdict: "other drive",
        names: `This is not ${guard.target}. Look again at the console before anything is written.`,
      };
}

/**
 * Decides what a command amounts to in the present state: an event to append, or a refusal that says why. The caller
 * only writes the answer down. A command for a step that is no longer current is refused, so that two windows cannot
 * push a run on twice.
 */
export function decide(plan: RunPlan, state: RunState, command: RunCommand): Result<RunEvent> {
  const refuse = (message: string) => fail({ message });
  if (state.status === "handed over" && command.kind !== "note" && command.kind !== "corrected")
    return refuse("This run has been handed over; only notes and corrections can be added.");
  const step = plan.steps[state.current];
  switch (command.kind) {
    case "note":
    case "reading":
    case "corrected":
      return ok(command);
    case "resumed":
      return state.status === "stopped" ? ok(command) : refuse("The run is not stopped.");
    case "handed over":
      if (state.current < plan.steps.length) return refuse(`There are steps left: ${step?.title ?? ""}.`);
      return state.acceptance
        ? ok(command)
        : refuse("Nothing was read back from the installed system yet: accept it first.");
    default:
  }
  if (state.status === "stopped")
    return refuse(`The run is stopped: ${state.stoppedBy ?? ""} Say what was done about it, then resume.`);
  if (!step || step.id !== command.step)
    return refuse(
      `This step is no longer the current one${step ? `; now it is "${step.title}"` : ""}. Another window may have gone on.`,
    );
  if (command.kind === "guard") {
    if (!step.guard) return refuse("This step has no guard.");
    if (command.typed.trim() === "") return refuse("Type what the console shows.");
    return ok({ ...command, ...answerGuard(step.guard, command.typed) });
  }
  if (step.kind === "guard" && command.kind !== "differs")
    return refuse("A guard cannot be passed or skipped without naming the drive.");
  if (step.kind === "guard" && command.kind === "differs" && command.decision === "go on")
    return refuse("A guard cannot be passed with a difference: go back or stop.");
  const guard = plan.steps[state.current - 1];
  if (command.kind === "as expected" && guard?.kind === "guard" && !state.guardsPassed.includes(guard.id))
    return refuse("The guard before this step was not passed.");
  return ok(command);
}
