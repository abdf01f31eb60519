import { formatBytes } from "../../units";
import type { Candidate } from "./candidate";
import type { Layout } from "./layout";

const count = (n: number, one: string): string => (n > 1 ? `${n} × ${one}` : one);

/** "2 × raidz2 of 6", "RAID10 of 8"; with what stands by. */
export function layoutName({ kind, groups, spares, data, distributed }: Layout): string {
  const width = groups[0]?.length ?? 0;
  const by = spares.length > 0 ? `, ${spares.length} spare${spares.length > 1 ? "s" : ""}` : "";
  if (kind.school !== "ZFS") {
    const who = kind.school === "md" ? "md" : "controller";
    const groupsOf = groups.length > 1 ? `${groups.length} × ${width}` : String(width);
    return `${who} RAID${kind.type} of ${groupsOf}${by}`;
  }
  if (data > 0) return `${kind.type} of ${width}: ${data} data, ${distributed} spare inside`;
  if (kind.type === "stripe")
    return `${width * groups.length} single drive${groups.length > 1 ? "s" : ""}${by}`;
  return `${count(groups.length, `${kind.type} of ${width}`)}${by}`;
}

const NUMBERS = ["no", "one", "two", "three", "four", "five", "six"];
const words = (n: number): string => NUMBERS[n] ?? String(n);

/** What follows from a choice, in a sentence that can be read from afar. */
export function consequence(candidate: Candidate, sizes: readonly number[]): string {
  const { usableBytes, rawBytes, survival, layout } = candidate;
  const largest = Math.max(...sizes);
  const [usable, raw] = [usableBytes, rawBytes].map((b) => (b / largest).toFixed(2));
  const width = layout.groups[0]?.length ?? 1;
  const isOneMirror = layout.groups.length === 1 && (layout.kind.type === "mirror" || layout.kind.type === 1);
  const copies = isOneMirror
    ? `${words(width)[0]!.toUpperCase()}${words(width).slice(1)} copies of one drive: `
    : "";
  const amount = `${copies}you can use ${usable} of ${raw} drives, ${formatBytes(usableBytes)}.`;
  const start = copies ? amount : `Y${amount.slice(1)}`;
  const out = layout.left.length;
  const aside =
    out > 0
      ? ` ${words(out)[0]!.toUpperCase()}${words(out).slice(1)} of them ${out > 1 ? "stay" : "stays"} out.`
      : "";
  if (survival.worst === 0) return `${start}${aside} The first drive that fails takes everything with it.`;
  const more =
    survival.best > survival.worst
      ? `; ${words(survival.worst + 1)} only in ${percent(survival.rows[survival.worst + 1]?.fraction ?? 0)} of cases`
      : "";
  return `${start}${aside} Any ${words(survival.worst)} may fail${more}.`;
}

/** Shares of a whole, with as many digits as they need. */
export const percent = (share: number): string => {
  const value = share * 100;
  return `${value >= 10 || value === 0 ? value.toFixed(0) : value.toPrecision(2)} %`;
};

const SCALES: [above: number, name: string][] = [
  [1e9, "billion"],
  [1e6, "million"],
];

/** A chance: in percent while it is one in a thousand or more, else as one in so many. */
export function chance(share: number): string {
  if (share >= 0.001) return percent(share);
  if (share <= 0) return "none";
  const one = 1 / share;
  if (one >= 1e12) return "under 1 in 1,000 billion";
  const scale = SCALES.find(([above]) => one >= above);
  const count = scale ? one / scale[0] : one;
  const digits = Number(count.toPrecision(2)).toLocaleString("en-GB");
  return `1 in ${digits}${scale ? ` ${scale[1]}` : ""}`;
}

/** Less than this share of the drives' bytes is called out, and has to be agreed to. */
export const SMALL_SHARE = 1 / 3;
