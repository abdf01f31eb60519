import type { Procedure } from "../procedure";
import type { RunEvent } from "./events";
import { readBackStop, readBackWords } from "./read-back";

const DECISIONS = { "go on": "continued", "go back": "went back one step", stop: "stopped" } as const;

/** One event in words, for the log and the record. */
export function logLine(event: RunEvent, plan: Pick<Procedure, "steps">, withTyped = false): string {
  const title = (id: string): string => plan.steps.find((s) => s.id === id)?.title ?? id;
  switch (event.kind) {
    case "started":
      return "Started";
    case "as expected":
      return `${title(event.step)}: confirmed${event.words ? `. ${event.words}` : ""}`;
    case "guard":
      // What was typed stays off the page while other guards may ask for it; the record shows it.
      return event.verdict === "passed"
        ? `${title(event.step)}: identified ${event.names}${withTyped ? ` by "${event.typed}"` : ""}`
        : `${title(event.step)}: stopped at "${event.typed}". ${event.names}`;
    case "read back":
      return event.differs.length > 0
        ? `${title(event.step)}: stopped. ${readBackStop(event, event.differs)}`
        : `${title(event.step)}: verified${withTyped ? ` (${readBackWords(event)})` : ""}`;
    case "differs":
      return `${title(event.step)}: difference. ${event.seen} (${DECISIONS[event.decision]})`;
    case "skipped":
      return `${title(event.step)}: skipped. ${event.reason}`;
    case "note":
      return `Note: ${event.text}`;
    case "reading":
      return `Measurement: ${event.what} ${event.value}`;
    case "corrected":
      return `Correction of entry ${event.seq}: ${event.text}`;
    case "timer":
      return `${title(event.step)}: timer started`;
    case "resumed":
      return `Resumed: ${event.reason}`;
    case "accepted": {
      const differing = event.lines.filter((l) => l.verdict === "differs").length;
      return `Compared with the plan, from ${event.from}: ${event.lines.length} lines, ${differing} ${differing === 1 ? "does not match" : "do not match"}`;
    }
    case "settled":
      return event.how === "seen"
        ? `Acceptance, ${event.line}: confirmed by inspection. ${event.words}`
        : `Acceptance, ${event.line}: deviation accepted (${event.found || "not verified"}). ${event.words}`;
    case "damaged":
      return `Damaged entry, ignored (${event.why}): ${event.text}`;
    case "handed over":
      return `Handed over to ${event.to}`;
  }
}
