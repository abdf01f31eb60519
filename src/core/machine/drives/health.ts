import { formatFixed, formatDecimalBytes, formatNumber } from "../../units";
import type { Drive } from "../facts/drive";

export type Verdict = "good" | "watch" | "failing" | "not known";

/** How a drive stands, with every reason in words; `kinds` tells which rule spoke. */
export interface DriveJudgement {
  verdict: Verdict;
  reasons: string[];
}

/**
 * Limits by class. Hours: five years of running without pause is the warranty that makers of server drives give at
 * most; wear: at 100 per cent the rated writes are used up. Temperatures are the usual upper operating limits.
 */
export const HEALTH_LIMITS = {
  hours: 43_800,
  wearWatch: 80,
  wearFailing: 100,
  reallocatedFailing: 50,
  hot: { spinning: 55, flash: 70, nvme: 75, card: 70, usb: 60, virtual: 75, unknown: 60 },
} as const;

const YEAR_HOURS = 8766;

/** "17 300 h (2.0 years)". */
export const hoursWords = (hours: number): string =>
  hours < 1000
    ? `${formatNumber(hours)} h`
    : `${formatNumber(hours)} h (${formatFixed(hours / YEAR_HOURS, 1)} years)`;

/**
 * Judges a drive by what it says of itself. Without any counter the verdict is "not known": silence is not health.
 * Failing: by its own word, pending or uncorrectable sectors, media errors, spare blocks used up, rated writes used
 * up, or 50 reallocated sectors. Watch: any reallocated sector, errors on the cable, hours, wear, heat, a failed test.
 */
export function judgeDrive(drive: Pick<Drive, "health" | "media">): DriveJudgement {
  const h = drive.health;
  if (!h || Object.keys(h).every((k) => k === "warnings" && h.warnings?.length === 0))
    return { verdict: "not known", reasons: ["no SMART data"] };
  const failing: string[] = [];
  const watch: string[] = [];
  if (h.passed === false) failing.push("the drive reports that it is failing");
  if (h.pending) failing.push(`${h.pending} pending sectors`);
  if (h.uncorrectable) failing.push(`${h.uncorrectable} uncorrectable errors`);
  if (h.mediaErrors) failing.push(`${h.mediaErrors} media errors`);
  if (h.reallocated)
    (h.reallocated >= HEALTH_LIMITS.reallocatedFailing ? failing : watch).push(
      `${h.reallocated} reallocated sectors`,
    );
  if (h.sparePercent != null && h.spareThresholdPercent != null && h.sparePercent <= h.spareThresholdPercent)
    failing.push(`spare blocks at ${h.sparePercent} %, threshold ${h.spareThresholdPercent} %`);
  if (h.wearPercent != null && h.wearPercent >= HEALTH_LIMITS.wearWatch)
    (h.wearPercent >= HEALTH_LIMITS.wearFailing ? failing : watch).push(
      `${h.wearPercent} % of the rated writes used`,
    );
  if (h.selfTest?.passed === false) failing.push(`its last self-test (${h.selfTest.kind}) failed`);
  for (const w of h.warnings ?? []) watch.push(w);
  if (h.interfaceErrors) watch.push(`${h.interfaceErrors} transfer errors: check cable and backplane`);
  if (h.hours != null && h.hours >= HEALTH_LIMITS.hours) watch.push(`${hoursWords(h.hours)} of operation`);
  const hot = HEALTH_LIMITS.hot[drive.media];
  if (h.temperatureC != null && h.temperatureC >= hot)
    watch.push(`${h.temperatureC} °C; the usual limit is ${hot} °C`);
  if (failing.length > 0) return { verdict: "failing", reasons: [...failing, ...watch] };
  if (watch.length > 0) return { verdict: "watch", reasons: watch };
  // A controller that only says "not about to fail" has told a verdict, but no counter stands behind it.
  return {
    verdict: "good",
    reasons: [h.hours != null ? `${hoursWords(h.hours)} of operation, no errors` : "no errors"],
  };
}

/** One line of what is known of a drive's wear, for lists. */
export function wearWords(drive: Pick<Drive, "health">): string {
  const h = drive.health;
  if (!h) return "not collected";
  return (
    [
      h.hours != null ? hoursWords(h.hours) : "",
      h.wearPercent != null ? `wear ${h.wearPercent} %` : "",
      h.temperatureC != null ? `${h.temperatureC}\u00a0°C` : "",
      h.writtenBytes ? `${formatDecimalBytes(h.writtenBytes)} written` : "",
    ]
      .filter(Boolean)
      .join(" · ") || "no counters"
  );
}
