import type { Drive } from "../../machine";
import { setFigures } from "./figures";
import type { PlannedSet } from "./planned";

/** Drives of another size than most of their set, and what can be used with them in it, and without. */
export interface OddDrives {
  drives: Drive[];
  /** What larger ones have above the smallest of the set, which nothing uses. */
  idleBytes: number;
  inBytes: number;
  /** Null where the layout does not bear to lose so many members. */
  outBytes: number | null;
  /** What they hold by themselves, each alone and without a copy. */
  aloneBytes: number;
}

/** Null while all members are of one size, or no layout is made of them. */
export function oddDrives(set: PlannedSet, byId: (id: string) => Drive | undefined): OddDrives | null {
  const members = set.members.flatMap((id) => byId(id) ?? []);
  const counts = new Map<number, number>();
  for (const { sizeBytes } of members) counts.set(sizeBytes, (counts.get(sizeBytes) ?? 0) + 1);
  const [usual] = [...counts].sort(([a, n], [b, m]) => m - n || a - b);
  const drives = members.filter((d) => d.sizeBytes !== usual?.[0]);
  const figures = setFigures(set, byId);
  if (drives.length === 0 || !figures.ok) return null;
  const kept = set.members.filter((id) => !drives.some((d) => d.id === id));
  const without = setFigures({ ...set, members: kept }, byId);
  const mixed = figures.value.candidate.ladder.find((r) => r.what === "mixed");
  return {
    ...{ drives, idleBytes: mixed?.lost ?? 0, inBytes: figures.value.candidate.usableBytes },
    outBytes: without.ok ? without.value.candidate.usableBytes : null,
    aloneBytes: drives.reduce((n, d) => n + d.sizeBytes, 0),
  };
}
