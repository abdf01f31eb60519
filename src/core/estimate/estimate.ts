import { z } from "zod";

/** How long something takes: likely (P50) and late (P90) seconds, and the share of it that needs hands (0 to 1). */
export const durationSchema = z
  .object({
    likelySeconds: z.number().nonnegative(),
    lateSeconds: z.number().nonnegative(),
    handsShare: z.number().min(0).max(1).default(1),
  })
  .refine((d) => d.lateSeconds >= d.likelySeconds, { message: "maximum is below the expected value" });

export type Duration = z.infer<typeof durationSchema>;

/**
 * Likely and late time of work done one after another. Likely times add; the spreads (late minus likely) are taken as
 * independent, so they add as squares: late = Σ likely + √Σ(late − likely)². Hands-on seconds are Σ likely × share.
 */
export function sumDurations(parts: readonly Duration[]) {
  let likelySeconds = 0;
  let spread = 0;
  let handsSeconds = 0;
  for (const part of parts) {
    likelySeconds += part.likelySeconds;
    spread += (part.lateSeconds - part.likelySeconds) ** 2;
    handsSeconds += part.likelySeconds * part.handsShare;
  }
  return {
    likelySeconds,
    lateSeconds: likelySeconds + Math.sqrt(spread),
    handsSeconds,
    waitSeconds: likelySeconds - handsSeconds,
  };
}

/** Shorthand for tables of steps: likely, late, share of hands. */
export const takes = (likelySeconds: number, lateSeconds: number, handsShare = 1): Duration => ({
  likelySeconds,
  lateSeconds,
  handsShare,
});
