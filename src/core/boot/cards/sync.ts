import { addSeconds } from "../../units";

/** What a page showed of a sync: whole percent, cut off and not rounded. */
export interface PercentReading {
  /** ISO time at which it was read. */
  at: string;
  percent: number;
}

/** When a sync ends by its readings: at the likely speed, and at the slowest that the readings allow. */
export interface SyncEnd {
  endsAt: string;
  /** Null while the readings stand so close together that it may hardly move. */
  lateAt: string | null;
  percentPerMinute: number;
}

const secondsBetween = (a: PercentReading, b: PercentReading): number =>
  (Date.parse(b.at) - Date.parse(a.at)) / 1000;

/**
 * The end of a sync from the first and the last of its readings, taken to go on evenly: a shown percent p stands for a
 * share from p to p + 1, so between two readings it moved by their difference, give or take one. Null with less than two
 * readings at different times, and where the percent does not rise; a fall begins it anew.
 */
export function syncEnd(readings: readonly PercentReading[]): SyncEnd | null {
  const sorted = readings.toSorted((a, b) => a.at.localeCompare(b.at));
  const fell = sorted.findLastIndex((r, i) => i > 0 && r.percent < sorted[i - 1]!.percent);
  const run = sorted.slice(Math.max(0, fell));
  const [first, last] = [run[0], run.at(-1)];
  if (!first || !last) return null;
  const seconds = secondsBetween(first, last);
  const moved = last.percent - first.percent;
  if (seconds <= 0 || moved <= 0) return null;
  const rest = 100 - last.percent;
  return {
    endsAt: addSeconds(last.at, Math.round((rest * seconds) / moved)),
    lateAt: moved > 1 ? addSeconds(last.at, Math.round((rest * seconds) / (moved - 1))) : null,
    percentPerMinute: (moved * 60) / seconds,
  };
}
