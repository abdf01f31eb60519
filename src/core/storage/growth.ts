import { CLASSES, REBUILD_SHARE, type ClassName } from "./bench/classes";
import { ladderOf } from "./bench/capacity";
import { tolerates, type Layout } from "./bench/layout";

/** A way in which a set that stands can be made larger. */
export interface Growth {
  way: keyof typeof GROWTH_WORDS;
  /** Drives that have to be bought, each of these bytes. */
  drives: number;
  driveBytes: number;
  before: number;
  after: number;
  /** How long its drives are at it, one after the other; none where nothing is copied. */
  seconds: { likely: number; late: number } | null;
}

/** What each way does, and what has to be known of it. */
export const GROWTH_WORDS = {
  replace:
    "Replace every drive with a larger one, one after the other; the capacity grows after the last one.",
  group:
    "Add another group like the present ones; the capacity grows at once, and existing data stays in place.",
  widen:
    "Add one drive to the group; all data is rewritten. Old data of a pool keeps its parity ratio until it is rewritten, and the pool reports its space by that ratio.",
} as const;

type Asked = { sector: 512 | 4096; media: ClassName; full: number; larger: number };

const QUESTION = {
  ...{
    drives: "",
    use: "bulk files" as const,
    survive: 0,
    least: null,
    spares: 0,
    free: 0,
    replace: 24,
    afr: null,
  },
  ...{ school: "any" as const, coercion: "none" as const },
};

const usable = (layout: Layout, sizes: readonly number[], asked: Asked): number =>
  ladderOf(layout, sizes, { ...QUESTION, ...asked }).at(-1)?.left ?? sizes.reduce((a, b) => a + b, 0);

const taking = (bytes: number, media: ClassName) => ({
  likely: bytes / (CLASSES[media].bytesPerSecond * REBUILD_SHARE.likely),
  late: bytes / (CLASSES[media].bytesPerSecond * REBUILD_SHARE.late),
});

/** A layout with one more member in its only group, which stands at the end of the drives. */
const widened = (layout: Layout, place: number): Layout => ({
  ...layout,
  groups: [[...layout.groups[0]!, place]],
});

/**
 * The ways in which a layout over drives of these sizes grows: drives of `larger` bytes in place of all, another group of
 * drives as large as the smallest, one drive more in a group with parity. `full` is how full it is, in percent. Sets
 * without a copy are not rebuilt, so they only grow by groups.
 */
export function growthOf(layout: Layout, sizes: readonly number[], asked: Asked): Growth[] {
  const before = usable(layout, sizes, asked);
  const members = layout.groups.flat();
  const width = layout.groups[0]?.length ?? 0;
  const smallest = Math.min(...members.map((i) => sizes[i]!));
  const isPool = layout.kind.school === "ZFS";
  const filled = (bytes: number): number => (isPool ? (bytes * asked.full) / 100 : bytes);
  const ways: Growth[] = [];
  if (tolerates(layout) > 0 && asked.larger > smallest) {
    const each = members.map((i) => Math.max(asked.larger, sizes[i]!));
    const next = sizes.map((bytes, i) => (members.includes(i) ? each[members.indexOf(i)]! : bytes));
    const replaced = members.filter((i) => sizes[i]! < asked.larger);
    const copied = replaced.reduce((sum, i) => sum + filled(sizes[i]!), 0);
    ways.push({
      ...{ way: "replace", drives: replaced.length, driveBytes: asked.larger, before },
      ...{ after: usable(layout, next, asked), seconds: taking(copied, asked.media) },
    });
  }
  if (isPool) {
    const added = Array.from({ length: width }, (_, i) => sizes.length + i);
    const next = [...sizes, ...added.map(() => smallest)];
    const after = usable({ ...layout, groups: [...layout.groups, added] }, next, asked);
    ways.push({ way: "group", drives: width, driveBytes: smallest, before, after, seconds: null });
  }
  const canWiden = isPool
    ? /^raidz/.test(String(layout.kind.type))
    : [5, 6].includes(Number(layout.kind.type));
  if (canWiden && layout.groups.length === 1 && layout.kind.school !== "RAID controller") {
    // A pool goes on counting its space with the share of parity that it was made with.
    const after = isPool
      ? Math.floor((before * (width + 1)) / width)
      : usable(widened(layout, sizes.length), [...sizes, smallest], asked);
    const moved = filled(smallest);
    ways.push({
      ...{ way: "widen", drives: 1, driveBytes: smallest, before, after },
      // Every drive reads and writes what stands on it.
      seconds: taking(2 * moved, asked.media),
    });
  }
  return ways;
}
