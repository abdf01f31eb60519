import { clockJumps, happened, logLine } from "@/core/run";
import { formatClock, formatDate, formatDuration } from "@/core/units";
import type { RunView } from "@/contract";

/** The log, newest first, by days. Nothing in it can be changed; a correction is an entry of its own. */
export function RunLog({ view, onCorrect }: { view: RunView; onCorrect: (seq: number) => void }) {
  const { plan, log } = view;
  const times = happened(log);
  const jumps = new Map(clockJumps(log).map((j) => [j.seq, j.seconds]));
  const entries = log
    .map((entry, i) => ({ ...entry, when: times[i]!, jump: jumps.get(entry.seq) }))
    .reverse();
  const days = entries.map((e) => formatDate(e.when, plan.site.timeZone));
  return (
    <ol className="mt-3" aria-label="Log">
      {entries.map((entry, i) => (
        <li key={entry.seq}>
          {days[i] !== days[i - 1] && <p className="label mt-2">{days[i]}</p>}
          <div className="grid grid-cols-[2.2rem_3.4rem_minmax(0,1fr)_auto] gap-2 border-b py-0.5 border-base-300">
            <span className="value quiet text-right">{entry.seq}</span>
            <time className="value" dateTime={entry.when}>
              {formatClock(entry.when, plan.site.timeZone)}
            </time>
            <span className="[overflow-wrap:anywhere]">
              {logLine(entry.event, plan)} <span className="quiet">– {entry.event.by}</span>
              {entry.given && (
                <span className="quiet">
                  · kept in the browser, received {formatClock(entry.at, plan.site.timeZone)}
                </span>
              )}
              {entry.jump !== undefined && (
                <span className="block font-medium text-error">
                  The server&apos;s clock was set back {formatDuration(entry.jump)} before this entry: times
                  around it are uncertain.
                </span>
              )}
            </span>
            <button type="button" className="link quiet text-[0.86rem]" onClick={() => onCorrect(entry.seq)}>
              Correct
            </button>
          </div>
        </li>
      ))}
    </ol>
  );
}
