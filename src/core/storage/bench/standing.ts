import { lossGroups, redundancyOf, tolerates, type Layout } from "./layout";

/** What is left of a layout with some drives failed. */
export interface Standing {
  state: "whole" | "degraded" | "lost";
  /** Drives of which not one more may be lost now. */
  mustStay: number[];
}

/** Drives that share data, each with how many of them may be lost: pairs of a RAID10, else whole groups. */
function sharing(layout: Layout): { drives: readonly number[]; tolerates: number }[] {
  const t = tolerates(layout);
  if (layout.kind.type !== 10) return layout.groups.map((drives) => ({ drives, tolerates: t }));
  const [drives = []] = layout.groups;
  if (redundancyOf(layout).kind === "ring")
    return drives.map((d, i) => ({ drives: [d, drives[(i + 1) % drives.length]!], tolerates: 1 }));
  return lossGroups(layout).map((_, i) => ({ drives: drives.slice(2 * i, 2 * i + 2), tolerates: 1 }));
}

/** Spares do nothing here: until one has taken a failed drive's place, it helps nobody. */
export function standing(layout: Layout, failed: ReadonlySet<number>): Standing {
  const groups = sharing(layout).map((g) => ({ ...g, lost: g.drives.filter((d) => failed.has(d)).length }));
  if (groups.some((g) => g.lost > g.tolerates)) return { state: "lost", mustStay: [] };
  const bare = groups.filter((g) => g.lost === g.tolerates);
  return {
    state: groups.some((g) => g.lost > 0) ? "degraded" : "whole",
    mustStay: [...new Set(bare.flatMap((g) => g.drives.filter((d) => !failed.has(d))))],
  };
}
