import { term } from "@/core/text";
import { formatDecimalBytes, formatDuration } from "@/core/units";
import { Size } from "../frame/person";

/** How far a computation over a file is: part, rate, time that is left, and how to stop it. */
export function Progress({
  algorithm,
  fileName,
  done,
  size,
  rate,
  onStop,
}: {
  algorithm: string;
  fileName: string;
  done: number;
  size: number;
  /** Bytes per second. */
  rate: number;
  onStop: () => void;
}) {
  const percent = Math.floor((100 * done) / Math.max(1, size));
  return (
    <>
      <div className="h-3 border border-current">
        <div className="hatched h-full" style={{ width: `${percent}%` }} />
      </div>
      <p className="flex flex-wrap items-baseline gap-3">
        <span>
          {term(algorithm)} of {fileName}: <span className="value">{percent} %</span> of <Size bytes={size} />
        </span>
        {rate > 0 && <span className="quiet">{formatDecimalBytes(rate)}/s</span>}
        {rate > 0 && <span className="quiet">{formatDuration((size - done) / rate)} left</span>}
        <button type="button" className="link" onClick={onStop}>
          Stop
        </button>
      </p>
    </>
  );
}
