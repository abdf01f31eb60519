import { isSoundMember, type DriveSet } from "../machine";
import { kindNamed, type Kind, type Layout } from "./bench/layout";

/** A set that stands on the machine, as a layout of the bench: its members by their places. */
export interface ToldLayout {
  layout: Layout;
  members: DriveSet["members"];
  /** Places of members that do not do their part. */
  lost: number[];
}

const LEVEL = /^(?:(\d+) × )?(.+)$/;

const POOL: readonly [RegExp, string][] = [
  [/^mirror\b/, "mirror"],
  [/^raidz1?$/, "raidz1"],
  [/^raidz([23])$/, "raidz$1"],
  [/^(single|stripe)$/, "stripe"],
];
/** RAID10 is not among them: which members hold the same copy is told by no tool that is read. */
const RAID = /^raid-?\s?([0156])$/i;

/** The kind of a set by the words of its tool; null where it is none of those that can be counted with. */
function toldKind(kind: DriveSet["kind"], level: string): Kind | null {
  if (kind === "pool") {
    const type = POOL.find(([words]) => words.test(level));
    return type ? kindNamed("ZFS", level.replace(...type)) : null;
  }
  const school = kind === "array" ? "md" : "RAID controller";
  if (/^mirror\b/.test(level)) return { school, type: 1 };
  if (/^linear$/.test(level)) return { school, type: 0 };
  // Level 4 keeps its parity on one drive, and bears what level 5 bears.
  const type = RAID.exec(level.replace(/raid-?\s?4$/i, "raid5"))?.[1];
  return type === undefined ? null : kindNamed(school, type);
}

/** Members in their groups; null where the tool does not tell which is in which. */
function grouped(members: DriveSet["members"], count: number): number[][] | null {
  const places = [...members.keys()];
  if (count === 1) return [places];
  if (members.some((m) => m.group === null)) return null;
  const groups = Array.from({ length: count }, (_, g) => places.filter((i) => members[i]!.group === g));
  // Groups of several widths bear different numbers of failures, and the bench counts with one.
  return groups.every((g) => g.length === groups[0]!.length && g.length > 0) ? groups : null;
}

/**
 * What is there as a layout. Null where it cannot be told: a layout of which the words say too little, several groups whose
 * members are listed without saying which is in which, no members.
 */
export function toldLayout({ kind: of, level, members }: DriveSet): ToldLayout | null {
  const own = members.filter((m) => m.role === "member");
  const [, times = "1", word = ""] = LEVEL.exec(level ?? "") ?? [];
  const kind = toldKind(of, word);
  if (!kind || own.length === 0) return null;
  // Drives of a pool without copies are groups of one each, whatever the words count.
  const groups = kind.type === "stripe" ? own.map((_, i) => [i]) : grouped(own, Number(times));
  if (!groups) return null;
  return {
    layout: { ...{ kind, groups, spares: [], left: [], distributed: 0, data: 0 } },
    members: own,
    lost: own.flatMap((m, i) => (isSoundMember(m.state) ? [] : [i])),
  };
}
