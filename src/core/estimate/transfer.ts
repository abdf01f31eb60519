import { formatBytes, formatDecimalBytes } from "../units";
import type { Duration } from "./estimate";
import type { Figure, FigureInput } from "./figure";
import type { LearnedRate } from "./learn";

/** What is known of the path between the console and the machine; rates are bits each second, as links are sold. */
export interface LinkMeasure {
  linkBitsPerSecond: number;
  roundTripSeconds: number;
  controllerCeilingBytesPerSecond: number;
  blockBytes: number;
  outstandingRequests: number;
  /** True where the person typed the link, or the round trip; the other values are defaults until they are measured. */
  linkTyped: boolean;
  roundTripTyped: boolean;
}

/** Controllers differ; until one is measured these are taken. */
export const DEFAULT_LINK: LinkMeasure = {
  linkBitsPerSecond: 100e6,
  roundTripSeconds: 0.005,
  controllerCeilingBytesPerSecond: 6e6,
  blockBytes: 65_536,
  outstandingRequests: 1,
  linkTyped: false,
  roundTripTyped: false,
};

/** Time to move bytes at a rate that is known from measurements, or taken as it is for want of one. */
export function readEstimate(
  sizeBytes: number,
  rate: LearnedRate | { likely: number; slow: number; words: string; count: 0 },
  what = "size",
): { duration: Duration; figure: Figure } {
  const likelySeconds = sizeBytes / rate.likely;
  const measured = rate.count > 0;
  return {
    duration: { likelySeconds, lateSeconds: sizeBytes / rate.slow, handsShare: 0 },
    figure: {
      value: likelySeconds,
      unit: "s",
      formula: measured
        ? `${what} ÷ median rate; maximum: ${what} ÷ the rate that 10 % fall below`
        : `${what} ÷ typical rate`,
      inputs: [
        { name: what, value: formatBytes(sizeBytes), source: "imported" },
        {
          name: "rate",
          value: `${formatDecimalBytes(rate.likely)}/s, slow ${formatDecimalBytes(rate.slow)}/s (${rate.words})`,
          source: measured ? "measured" : "default",
        },
      ],
    },
  };
}

/**
 * Time to read a whole image through virtual media. The rate is the smallest of three limits: link rate, the
 * controller's own ceiling, and block size × outstanding requests ÷ round-trip time (each block waits for the one
 * before it). Late is half as long again: retries and the second reading of the boot files.
 */
export function transferEstimate(
  sizeBytes: number,
  link: LinkMeasure,
): { duration: Duration; figure: Figure } {
  const limits = {
    link: link.linkBitsPerSecond / 8,
    controller: link.controllerCeilingBytesPerSecond,
    "round trip": (link.blockBytes * link.outstandingRequests) / link.roundTripSeconds,
  };
  const rate = Math.min(...Object.values(limits));
  const narrowest = Object.entries(limits).find(([, limit]) => limit === rate)?.[0] ?? "link";
  const likelySeconds = sizeBytes / rate;
  const source = (typed: boolean): FigureInput["source"] => (typed ? "typed" : "default");
  return {
    duration: { likelySeconds, lateSeconds: likelySeconds * 1.5, handsShare: 0 },
    figure: {
      value: likelySeconds,
      unit: "s",
      formula: `size ÷ min(link ÷ 8, controller ceiling, block × outstanding ÷ round trip); the narrowest is the ${narrowest}`,
      inputs: [
        { name: "size", value: formatBytes(sizeBytes), source: "imported" },
        { name: "link", value: `${link.linkBitsPerSecond / 1e6} Mbit/s`, source: source(link.linkTyped) },
        {
          name: "round trip",
          value: `${link.roundTripSeconds * 1000} ms`,
          source: source(link.roundTripTyped),
        },
        {
          name: "controller ceiling",
          value: `${link.controllerCeilingBytesPerSecond / 1e6} MB/s`,
          source: "default",
        },
        {
          name: "block × outstanding",
          value: `${link.blockBytes} B × ${link.outstandingRequests}`,
          source: "default",
        },
      ],
    },
  };
}

/** What a line carries of its nominal rate: headers take a tenth, and late is a line that others use as well. */
const LINE_SHARE = { likely: 0.9, slow: 0.4 };

/** Time to fetch a file over a line that is sold in bits each second. */
export function fetchEstimate(
  sizeBytes: number,
  bitsPerSecond: number,
): { duration: Duration; figure: Figure } {
  const bytes = bitsPerSecond / 8;
  const { duration, figure } = readEstimate(sizeBytes, {
    likely: bytes * LINE_SHARE.likely,
    slow: bytes * LINE_SHARE.slow,
    count: 0,
    words: `a link of ${bitsPerSecond / 1e6} Mbit/s, 90 % usable, at least 40 %`,
  });
  return { duration, figure: { ...figure, formula: "size ÷ (link ÷ 8 × share)" } };
}
