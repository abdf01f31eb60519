import type { Drive } from "../../machine";
import { CLASS_NAMES } from "./classes";

/**
 * The address of the question that a machine's own drives ask, in groups of one size, the larger ones first; sticks,
 * cards and volumes of an array stay away. Null without any. Sheets link to it, so it asks no schema.
 */
export function benchQuery(drives: readonly Drive[]): string | null {
  const own = drives.filter(
    (d) => d.missingSince === null && d.san === null && !["usb", "card", "virtual"].includes(d.media),
  );
  if (own.length === 0) return null;
  const counts = new Map<number, number>();
  for (const { sizeBytes } of own) counts.set(sizeBytes, (counts.get(sizeBytes) ?? 0) + 1);
  const groups = [...counts].sort(([a], [b]) => b - a).map(([bytes, n]) => `${n}x${bytes}`);
  const kinds = CLASS_NAMES.map((name) => own.filter((d) => d.media === name).length);
  const query = new URLSearchParams({
    drives: groups.join(" "),
    media: CLASS_NAMES[kinds.indexOf(Math.max(...kinds))]!,
  });
  if (own.every((d) => d.logicalSectorBytes === 4096)) query.set("sector", "4096");
  return query.toString();
}
