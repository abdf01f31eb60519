import { formatNumber } from "../units";
import { latestReadings, READING_KINDS, type Reading } from "./reading";

/** One reading beside those of like machines. */
export interface BaselineLine {
  reading: Reading;
  /** Median of the others, and how many they are. */
  median: number;
  count: number;
  /** Deviation from the median, in per cent of it. */
  deviationPercent: number;
  likeness: "model" | "processor";
}

export interface LikeMachine {
  name: string;
  likeness: "model" | "processor";
  readings: readonly Reading[];
}

/** What two machines have in common, so that their readings can be compared: the same model, else the same processor. */
export function likenessOf(
  own: { model: string | null | undefined; processor: string | null | undefined },
  other: { model: string; processor: string },
): LikeMachine["likeness"] | null {
  if (own.model && other.model === own.model) return "model";
  return own.processor && other.processor === own.processor ? "processor" : null;
}

export function median(values: readonly number[]): number {
  const sorted = [...values].sort((a, b) => a - b);
  const middle = Math.floor(sorted.length / 2);
  return sorted.length % 2 === 1
    ? (sorted[middle] ?? 0)
    : ((sorted[middle - 1] ?? 0) + (sorted[middle] ?? 0)) / 2;
}

/**
 * Compares the newest readings of a machine with the medians of like ones: same model where there is any, else the
 * same processor. Things are compared by kind, name and state; a thing that only this machine has is left out.
 */
export function baselines(own: readonly Reading[], others: readonly LikeMachine[]): BaselineLine[] {
  const latest = others.map((o) => ({ ...o, readings: latestReadings(o.readings) }));
  return latestReadings(own).flatMap((reading): BaselineLine[] => {
    for (const likeness of ["model", "processor"] as const) {
      const values = latest
        .filter((o) => o.likeness === likeness)
        .flatMap((o) =>
          o.readings.filter(
            (r) => r.kind === reading.kind && r.what === reading.what && r.state === reading.state,
          ),
        )
        .map((r) => r.value);
      const middle = median(values);
      if (values.length > 0 && middle !== 0)
        return [
          {
            reading,
            median: middle,
            count: values.length,
            deviationPercent: (100 * (reading.value - middle)) / Math.abs(middle),
            likeness,
          },
        ];
    }
    return [];
  });
}

/** A rate against what the link or interface is rated at, in per cent. */
export const percentOfRated = (reading: Reading, rated: number): number => (100 * reading.value) / rated;

export const readingWords = (r: Pick<Reading, "value" | "kind">): string =>
  `${formatNumber(r.value, Math.abs(r.value) >= 100 ? 0 : 1)} ${READING_KINDS[r.kind].unit}`;
