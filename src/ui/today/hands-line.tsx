import Link from "next/link";
import type { RunningRow } from "@/core/run";
import { addSeconds, formatClock, secondsBetween } from "@/core/units";

const HOUR = 3600;
const BEFORE = HOUR;
const SPAN = 9 * HOUR;

/**
 * The hands line: one hour back, eight ahead. Hands-on stretches are solid, waits hatched; the flag is the next moment
 * that needs a person.
 */
export function HandsLine({ rows, now }: { rows: RunningRow[]; now: string }) {
  const start = addSeconds(now, -BEFORE);
  const at = (iso: string): number => Math.min(100, Math.max(0, (100 * secondsBetween(start, iso)) / SPAN));
  const zone = rows[0]?.timeZone ?? "Europe/London";
  const firstHour = addSeconds(start, HOUR - ((Date.parse(start) / 1000) % HOUR));
  const hours = Array.from({ length: 9 }, (_, i) => addSeconds(firstHour, i * HOUR));
  return (
    <div>
      <div className="relative ml-0 h-5 sm:ml-56" aria-hidden="true">
        {hours.map((h) => (
          <span
            key={h}
            className="value quiet absolute -translate-x-1/2 text-[0.79rem]"
            style={{ left: `${at(h)}%` }}
          >
            {formatClock(h, zone)}
          </span>
        ))}
      </div>
      {rows.map((row) => (
        <div
          key={row.id}
          className="grid grid-cols-1 items-center gap-x-4 border-t py-2.5 sm:grid-cols-[13rem_minmax(0,1fr)] border-base-300"
        >
          <div>
            <Link href={`/runs/${row.id}`} className="link text-[1.07rem] font-semibold">
              {row.machine}
            </Link>
            <div className="quiet text-[0.86rem]">
              {row.number} · step {row.position}
            </div>
          </div>
          <div>
            <Bar row={row} hours={hours} now={now} at={at} />
            {row.hands && (
              <p className={row.status === "stopped" || row.hands.late ? "font-semibold text-error" : ""}>
                <span className="value font-semibold">
                  {row.hands.at <= now ? "now" : formatClock(row.hands.at, row.timeZone)}
                </span>{" "}
                {row.hands.what}
              </p>
            )}
            {row.undo.length > 0 && <p className="quiet text-[0.86rem]">To undo: {row.undo.join("; ")}</p>}
          </div>
        </div>
      ))}
      <Legend />
    </div>
  );
}

/** One run along the line; `at` gives the place of a moment in percent of the width. */
const Bar = ({
  row,
  hours,
  now,
  at,
}: {
  row: RunningRow;
  hours: readonly string[];
  now: string;
  at: (iso: string) => number;
}) => (
  <div className="relative h-9 overflow-hidden" role="img" aria-label={`${row.machine}: ${row.step}`}>
    {hours.map((h) => (
      <span
        key={h}
        className="absolute inset-y-0 w-px"
        style={{ left: `${at(h)}%`, background: "var(--color-base-300)" }}
      />
    ))}
    {row.stretches.map((s, i) => (
      <span
        key={i}
        title={s.title}
        className={`absolute top-3 h-5 ${s.kind === "wait" ? "hatched border-y border-current" : "bg-current"}`}
        style={{
          left: `${at(s.from)}%`,
          width: `${Math.max(0, at(s.to) - at(s.from))}%`,
          opacity: s.past ? 0.4 : 0.85,
        }}
      />
    ))}
    <span
      className="absolute inset-y-0 w-0.5"
      style={{ left: `${at(now)}%`, background: "var(--color-error)" }}
    />
    {row.hands && (
      <svg
        viewBox="0 0 14 36"
        className="absolute top-0 h-9 w-3.5"
        style={{ left: `${at(row.hands.at)}%`, color: "var(--color-error)" }}
        aria-hidden="true"
      >
        <path d="M1 36 V1 L13 5.5 L1 10" fill="currentColor" stroke="currentColor" />
      </svg>
    )}
  </div>
);

const Legend = () => (
  <p className="quiet flex flex-wrap gap-x-5 border-t pt-1 text-[0.86rem] border-base-300">
    <span className="flex items-center gap-1.5">
      <i className="inline-block h-3 w-5 bg-current opacity-85" /> attended
    </span>
    <span className="flex items-center gap-1.5">
      <i className="hatched inline-block h-3 w-5 border-y" /> unattended
    </span>
    <span className="flex items-center gap-1.5">
      <i className="inline-block h-3 w-0.5 bg-error" /> now
    </span>
    <span>flag: next operator action</span>
  </p>
);
