import { z } from "zod";
import { formatDuration } from "../units";
import type { Duration } from "./estimate";
import type { Figure } from "./figure";

/** How long one wait of one run really took. */
export const stepTimeSchema = z.object({
  /** "cairn-hypervisor 9 writing": profile, version and screen. */
  screen: z.string().max(400),
  model: z.string().max(400),
  seconds: z.number().positive(),
  at: z.iso.datetime(),
  /** For people: "wrk-hv1, B-0041". */
  where: z.string().max(400),
});
export type StepTime = z.infer<typeof stepTimeSchema>;

/** The profile's own time counts as so many runs: one run moves an estimate by a third, ten leave little of the default. */
const DEFAULT_WEIGHT = 2;
const NEWEST = 20;

const median = (sorted: readonly number[]): number => {
  const middle = Math.floor(sorted.length / 2);
  const [low = 0, high = 0] = [sorted[(sorted.length - 1) >> 1], sorted[middle]];
  return (low + high) / 2;
};

/**
 * A screen's duration from own runs, shrunk towards the profile's while there are few: likely = (w × default + n × median)
 * ÷ (w + n) with w = 2; late is the larger of the longest seen and the default's late, shrunk alike. Runs on the same
 * model count before all others. Null without any run.
 */
export function learnStep(
  usual: Duration,
  screen: string,
  model: string,
  times: readonly StepTime[],
): { duration: Duration; figure: Figure; runs: number } | null {
  const ofScreen = times.filter((t) => t.screen === screen);
  const same = ofScreen.filter((t) => t.model === model);
  const used = (same.length > 0 ? same : ofScreen)
    .toSorted((a, b) => b.at.localeCompare(a.at))
    .slice(0, NEWEST)
    .map((t) => t.seconds)
    .sort((a, b) => a - b);
  if (used.length === 0) return null;
  const shrunk = (own: number, given: number): number =>
    (DEFAULT_WEIGHT * given + used.length * own) / (DEFAULT_WEIGHT + used.length);
  const likelySeconds = shrunk(median(used), usual.likelySeconds);
  const lateSeconds = Math.max(likelySeconds, shrunk(used.at(-1) ?? 0, usual.lateSeconds));
  return {
    runs: used.length,
    duration: { ...usual, likelySeconds, lateSeconds },
    figure: {
      value: likelySeconds,
      unit: "s",
      formula: `(${DEFAULT_WEIGHT} × time of the profile + runs × their median) ÷ (${DEFAULT_WEIGHT} + runs)`,
      inputs: [
        { name: "time of the profile", value: formatDuration(usual.likelySeconds), source: "default" },
        { name: "runs", value: `${used.length}${same.length > 0 ? ` on ${model}` : ""}`, source: "measured" },
        { name: "their median", value: formatDuration(median(used)), source: "measured" },
      ],
    },
  };
}
