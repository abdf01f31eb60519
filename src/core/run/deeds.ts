import type { Procedure } from "../procedure";
import { keysRead } from "../machine";
import type { Deed } from "../work";
import type { RunEvent } from "./events";
import type { RunState } from "./state";

/** A reading that tells a key of the machine's firmware, and when it is taken: the next sheet says it. */
function keysNoted({ machine }: Procedure, { what, value }: Extract<RunEvent, { kind: "reading" }>): Deed[] {
  const keys = keysRead(what, value);
  return keys && machine.id ? [{ kind: "keys noted", machine: machine.id, keys }] : [];
}

/**
 * What an event means beyond the run: the deeds of the current step, once it is done. A step that went on with a difference
 * overwrote its drives all the same; what it wrote to a stick is not known then, and nothing counts as compared.
 */
export function deedsOf(plan: Procedure, state: RunState, event: RunEvent): Deed[] {
  if (event.kind === "reading") return keysNoted(plan, event);
  const deeds = state.status === "running" ? (plan.steps[state.current]?.deeds ?? []) : [];
  if (event.kind === "as expected") return deeds;
  if (event.kind !== "differs" || event.decision !== "go on") return [];
  return deeds.flatMap((deed): Deed[] => {
    if (deed.kind === "drives overwritten") return [deed];
    return deed.kind === "stick written" ? [{ ...deed, written: "unknown" }] : [];
  });
}
