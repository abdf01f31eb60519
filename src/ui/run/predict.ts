import { acceptanceOf, decide, foldRun, nextHands } from "@/core/run";
import type { Unsent } from "./outbox";
import type { RunView } from "@/contract";

/** The name under what the server has not signed yet. */
const HERE = "you, not yet sent";

/**
 * The run as it will be when what waits in this browser has arrived: decided by the same core as on the server, so that
 * somebody whose server is away can go on. What would be refused is left out; the server says why.
 */
export function predict(view: RunView, unsent: readonly Unsent[]): RunView {
  const { plan } = view;
  const log = [...view.log];
  for (const { key, command, givenAt } of unsent) {
    // A hand-over is one when the server has it, and is not shown before.
    if (command.kind === "handed over" || log.some((l) => l.key === key)) continue;
    const decided = decide(plan, foldRun(plan.steps, log), command, HERE);
    if (!decided.ok) continue;
    log.push({ seq: log.length + 1, at: new Date(givenAt).toISOString(), key, event: decided.value });
  }
  if (log.length === view.log.length) return view;
  const state = foldRun(plan.steps, log);
  return {
    ...view,
    log,
    state,
    hands: nextHands(plan.steps, state, view.now),
    acceptance: acceptanceOf(plan, state),
  };
}
