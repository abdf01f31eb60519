import { formatFixed, formatBytes, formatNumber } from "../../units";
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
  if (data > 0) return `${kind.type} of ${width}: ${data} data, ${distributed} distributed spare`;
  if (kind.type === "stripe")
    return `${width * groups.length} single drive${groups.length > 1 ? "s" : ""}${by}`;
  return `${count(groups.length, `${kind.type} of ${width}`)}${by}`;
}

const failures = (n: number): string => `any ${n} drive ${n === 1 ? "failure" : "failures"}`;

/** What follows from a choice, in a sentence that can be read from afar. */
export function consequence({ usableBytes, rawBytes, survival, layout }: Candidate): string {
  const width = layout.groups[0]?.length ?? 1;
  const isOneMirror = layout.groups.length === 1 && (layout.kind.type === "mirror" || layout.kind.type === 1);
  const copies = isOneMirror ? `${width} copies of one drive. ` : "";
  const out = layout.left.length;
  const aside = out > 0 ? ` ${out} ${out === 1 ? "drive is" : "drives are"} unused.` : "";
  const start = `${copies}Usable: ${formatBytes(usableBytes)}, ${percent(usableBytes / rawBytes)} of raw.${aside}`;
  if (survival.worst === 0) return `${start} The first drive failure loses all data.`;
  const more =
    survival.best > survival.worst
      ? `, and ${survival.worst + 1} in ${percent(survival.rows[survival.worst + 1]?.fraction ?? 0)} of cases`
      : "";
  return `${start} Tolerates ${failures(survival.worst)}${more}.`;
}

/** Shares of a whole, with as many digits as they need. */
export const percent = (share: number): string => {
  const value = share * 100;
  return `${value >= 10 || value === 0 ? formatFixed(value, 0) : value.toPrecision(2)} %`;
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
  const digits = formatNumber(Number(count.toPrecision(2)), 1);
  return `1 in ${digits}${scale ? ` ${scale[1]}` : ""}`;
}

/** Less than this share of the drives' bytes is called out, and has to be agreed to. */
export const SMALL_SHARE = 1 / 3;
