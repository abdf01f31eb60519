import type { Figure } from "../../estimate";
import { formatDuration } from "../../units";
import type { WayPlan } from "./way";

/** Seconds of a person that a way costs for a number of machines; waiting is not counted. */
export const handsSeconds = ({ once, each }: Pick<WayPlan, "once" | "each">, machines: number): number =>
  once.likelySeconds * once.handsShare + machines * each.likelySeconds * each.handsShare;

/**
 * Seconds from the start until the last machine has read its image. Where several can read at the same time the hands
 * follow each other and the transfers overlap; elsewhere one goes after the other.
 */
export function elapsedSeconds({ once, each, parallel }: WayPlan, machines: number): number {
  if (machines <= 0) return 0;
  const hands = each.likelySeconds * each.handsShare;
  const wait = each.likelySeconds - hands;
  return once.likelySeconds + (parallel ? machines * hands + wait : machines * each.likelySeconds);
}

/**
 * The number of machines from which the second way costs fewer hands than the first: the least n with
 * once₂ + n × each₂ < once₁ + n × each₁. Null when it never does; 1 when it does at once.
 */
export function breakEven(
  first: Pick<WayPlan, "once" | "each">,
  second: Pick<WayPlan, "once" | "each">,
): number | null {
  const cost = (p: Pick<WayPlan, "once" | "each">) => ({
    once: p.once.likelySeconds * p.once.handsShare,
    each: p.each.likelySeconds * p.each.handsShare,
  });
  const [a, b] = [cost(first), cost(second)];
  if (b.once + b.each < a.once + a.each) return 1;
  if (b.each >= a.each) return null;
  return Math.floor((b.once - a.once) / (a.each - b.each)) + 1;
}

/** Hands that a machine needs although its answers come from a file. */
export const UNATTENDED_SECONDS = 120;

/**
 * From how many machines an answer file pays: preparation ÷ (attended − unattended hands), rounded up. The preparation is
 * what a person says that writing and trying the file takes. Null where the attended installation needs no more hands
 * than the unattended one.
 */
export function answerFileBreakEven(
  attendedSeconds: number,
  preparationSeconds: number,
): { machines: number; figure: Figure } | null {
  const saved = attendedSeconds - UNATTENDED_SECONDS;
  if (saved <= 0 || !(preparationSeconds > 0)) return null;
  const machines = Math.ceil(preparationSeconds / saved);
  return {
    machines,
    figure: {
      value: machines,
      unit: "machines",
      formula: "preparation ÷ (attended time without − attended time with an answer file), rounded up",
      inputs: [
        { name: "preparation", value: formatDuration(preparationSeconds), source: "typed" },
        {
          name: "attended time without an answer file",
          value: formatDuration(attendedSeconds),
          source: "computed",
        },
        {
          name: "attended time with an answer file",
          value: formatDuration(UNATTENDED_SECONDS),
          source: "default",
        },
      ],
    },
  };
}

/**
 * Seconds until n machines have each read `bytes` at the same time from one server: each is bounded by its own port and
 * by its share of the server's link, n × bytes ÷ link.
 */
export const sharedSeconds = (
  machines: number,
  bytes: number,
  serverBytesPerSecond: number,
  portBytesPerSecond: number,
): number => Math.max(bytes / portBytesPerSecond, (machines * bytes) / serverBytesPerSecond);

/** How many machines can read at once before the server's link, not their own port, decides. At least one. */
export const atOnce = (serverBytesPerSecond: number, portBytesPerSecond: number): number =>
  Math.max(1, Math.floor(serverBytesPerSecond / portBytesPerSecond));
