import { logLine } from "@/core/run";
import { formatClock } from "@/core/units";
import type { RunView } from "./use-run";

/** The log, newest first. Nothing in it can be changed; a correction is an entry of its own. */
export function RunLog({ view, onCorrect }: { view: RunView; onCorrect: (seq: number) => void }) {
  return (
    <ol className="mt-3" aria-label="Log">
      {view.log.toReversed().map((entry) => (
        <li
          key={entry.seq}
          className="grid grid-cols-[2.2rem_3.4rem_minmax(0,1fr)_auto] gap-2 border-b py-0.5"
          style={{ borderColor: "var(--color-base-300)" }}
        >
          <span className="value quiet text-right">{entry.seq}</span>
          <time className="value" dateTime={entry.at}>
            {formatClock(entry.at, view.plan.timeZone)}
          </time>
          <span className="[overflow-wrap:anywhere]">
            {logLine(entry.event, view.plan)} <span className="quiet">– {entry.event.by}</span>
          </span>
          <button
            type="button"
            className="link-quiet quiet text-[0.86rem]"
            onClick={() => onCorrect(entry.seq)}
          >
            correct
          </button>
        </li>
      ))}
    </ol>
  );
}
