import { z } from "zod";

/** How an installer reaches a machine. */
export const WAYS = ["virtual media", "stick", "network", "disc"] as const;
export type Way = (typeof WAYS)[number];

/** One measured transfer: how fast, through what, when, and where it was seen. */
export const rateSampleSchema = z.object({
  way: z.enum(WAYS),
  /** What bounded it: a controller, a stick, a boot server; samples of the same thing are taken together. */
  through: z.string().max(400),
  bytes: z.number().positive(),
  seconds: z.number().positive(),
  at: z.iso.datetime(),
  /** For people: "wrk-hv1, B-0041". */
  where: z.string().max(400),
});
export type RateSample = z.infer<typeof rateSampleSchema>;

export interface LearnedRate {
  /** Median, in bytes per second. */
  likely: number;
  /** The rate that one measurement in ten falls below; with fewer than three, a third under the slowest. */
  slow: number;
  count: number;
  words: string;
}

const FEW = 3;
/** Old measurements say little about a link that was changed since; the newest are enough. */
const NEWEST = 20;

/**
 * The rate of one way, from measurements through the very same thing; without any, from those by the same way at the
 * same site (`nearby`). Null when nothing was measured. Percentiles by nearest rank.
 */
export function learnRate(
  samples: readonly RateSample[],
  way: RateSample["way"],
  through: string,
  nearby: (sample: RateSample) => boolean = () => false,
): LearnedRate | null {
  const ofWay = samples.filter((s) => s.way === way);
  const same = through === "" ? [] : ofWay.filter((s) => s.through === through);
  const used = same.length > 0 ? same : ofWay.filter(nearby);
  if (used.length === 0) return null;
  const rates = used
    .toSorted((a, b) => b.at.localeCompare(a.at))
    .slice(0, NEWEST)
    .map((s) => s.bytes / s.seconds)
    .sort((a, b) => a - b);
  const rank = (share: number): number => rates[Math.max(0, Math.ceil(share * rates.length) - 1)] ?? 0;
  const slowest = rank(0.1);
  return {
    likely: rank(0.5),
    slow: rates.length < FEW ? slowest / 1.5 : slowest,
    count: rates.length,
    words: `${rates.length} ${rates.length === 1 ? "measurement" : "measurements"} ${
      same.length > 0 ? `through ${through}` : "at this site"
    }`,
  };
}
