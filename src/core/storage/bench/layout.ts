import type { Redundancy } from "../reliability";

/** Who keeps the copies and the parity. */
export const SCHOOLS = ["ZFS", "md", "RAID controller"] as const;
export type School = (typeof SCHOOLS)[number];

const TYPES = {
  ZFS: ["stripe", "mirror", "raidz1", "raidz2", "raidz3", "draid1", "draid2", "draid3"],
  md: [0, 1, 5, 6, 10],
  "RAID controller": [0, 1, 5, 6, 10, 50, 60],
} as const satisfies Record<School, readonly (string | number)[]>;

/** The kinds of groups of each school. */
export type Kind = { [S in School]: { school: S; type: (typeof TYPES)[S][number] } }[School];

/** The kind of a school that a word names; null where the school has no such kind. */
export function kindNamed(school: School, word: string): Kind | null {
  const of = <T>(types: readonly T[]) => types.find((type) => String(type) === word);
  if (school === "ZFS") {
    const type = of(TYPES.ZFS);
    return type === undefined ? null : { school, type };
  }
  if (school === "md") {
    const type = of(TYPES.md);
    return type === undefined ? null : { school, type };
  }
  const type = of(TYPES[school]);
  return type === undefined ? null : { school, type };
}

/** Drives in groups, by their places in the list of the question; largest drives stand together. */
export interface Layout {
  kind: Kind;
  groups: readonly (readonly number[])[];
  /** Drives that stand by, those of a dRAID inside it, and those that nothing is made of. */
  spares: readonly number[];
  distributed: number;
  /** Data devices of a dRAID group. */
  data: number;
  left: readonly number[];
  /** Of an array: the chunk that is asked for, in KiB; without one it is what the tool chooses. */
  chunkKib?: number | null;
}

const PARITY: Readonly<Record<string, number>> = {
  ...{ stripe: 0, raidz1: 1, raidz2: 2, raidz3: 3, draid1: 1, draid2: 2, draid3: 3 },
  ...{ "0": 0, "5": 1, "6": 2, "50": 1, "60": 2 },
};

/** How many of a group may be lost. */
export function tolerates({ kind, groups }: Pick<Layout, "kind" | "groups">): number {
  const type = String(kind.type);
  if (type === "mirror" || type === "1") return (groups[0]?.length ?? 1) - 1;
  return type === "10" ? 1 : PARITY[type]!;
}

const isOddRing = ({ kind, groups }: Layout): boolean =>
  kind.school === "md" && kind.type === 10 && (groups[0]?.length ?? 0) % 2 === 1;

/** Pairs of a RAID10, which stands as one group in the layout; all others as they are. */
export function lossGroups(layout: Layout): number[] {
  const { kind, groups } = layout;
  if (kind.type === 10) return Array<number>(Math.floor((groups[0]?.length ?? 0) / 2)).fill(2);
  return groups.map((g) => g.length);
}

/** What fails together, for counting which failures are survived. dRAID survives any so many, and is told no better. */
export function redundancyOf(layout: Layout): Redundancy {
  if (isOddRing(layout)) return { kind: "ring", members: layout.groups[0]!.length };
  const t = tolerates(layout);
  return { kind: "groups", groups: lossGroups(layout).map((n) => [n, Math.min(t, n)] as const) };
}

const range = (from: number, to: number): number[] =>
  Array.from({ length: Math.max(0, to - from + 1) }, (_, i) => from + i);

/** So many groups of a width, of the drives from the largest on; what is over stays out. */
function dealt(drives: readonly number[], width: number, count: number): number[][] {
  return range(0, count - 1).map((g) => drives.slice(g * width, (g + 1) * width));
}

type Shape = { kind: Kind; width: number; count: number; distributed?: number; data?: number };

/** Widths above this resilver for days, and nobody who knows them makes them. */
const WIDEST = 24;

function zfsShapes(n: number, spares: number): Shape[] {
  const zfs = (type: Extract<Kind, { school: "ZFS" }>["type"]): Kind => ({ school: "ZFS", type });
  return [
    { kind: zfs("stripe"), width: 1, count: n },
    ...[2, 3, 4]
      .filter((w) => w <= n)
      .map((w) => ({ kind: zfs("mirror"), width: w, count: Math.floor(n / w) })),
    ...([1, 2, 3] as const).flatMap((p) =>
      range(p + 2, Math.min(n, WIDEST)).map((w) => ({
        ...{ kind: zfs(`raidz${p}`), width: w, count: Math.floor(n / w) },
      })),
    ),
    ...([1, 2, 3] as const).flatMap((p) =>
      [4, 8, 16]
        .filter((data) => n >= 10 && data + p + Math.max(1, spares) <= n)
        .map((data) => ({
          ...{ kind: zfs(`draid${p}`), width: n, count: 1, data, distributed: Math.max(1, spares) },
        })),
    ),
  ];
}

function mdShapes(n: number): Shape[] {
  const md = (type: Extract<Kind, { school: "md" }>["type"], width: number): Shape => ({
    ...{ kind: { school: "md", type }, width, count: 1 },
  });
  return [
    ...(n >= 2 ? [md(0, n), md(1, 2)] : []),
    ...(n >= 3 ? [md(5, n), md(10, n), md(1, 3)] : []),
    ...(n >= 4 ? [md(6, n)] : []),
  ].filter((s) => s.width <= WIDEST || s.kind.type === 0 || s.kind.type === 10);
}

function controllerShapes(n: number): Shape[] {
  const raid = (
    type: Extract<Kind, { school: "RAID controller" }>["type"],
    width: number,
    count = 1,
  ): Shape => ({
    ...{ kind: { school: "RAID controller", type }, width, count },
  });
  const even = n - (n % 2);
  const spanned = (type: 50 | 60, least: number): Shape[] =>
    range(2, Math.floor(n / least)).map((g) => raid(type, Math.floor(n / g), g));
  return [
    ...(n >= 2 ? [raid(0, n), raid(1, 2)] : []),
    ...(n >= 3 ? [raid(5, n)] : []),
    ...(n >= 4 ? [raid(6, n), raid(10, even)] : []),
    ...spanned(50, 3),
    ...spanned(60, 4),
  ].filter((s) => s.width <= WIDEST || s.kind.type === 10 || s.kind.type === 0);
}

/** Every layout of drives, given by their sizes, with some that stand by and some that stay out. */
export function layoutsOf(sizes: readonly number[], spares: number, free: number): Layout[] {
  const order = range(0, sizes.length - 1).sort((a, b) => sizes[b]! - sizes[a]! || a - b);
  const n = sizes.length - free - spares;
  if (n < 1) return [];
  const made = (shape: Shape, drives: readonly number[], by: readonly number[]): Layout => {
    const groups = dealt(drives, shape.width, shape.count);
    const used = new Set([...groups.flat(), ...by]);
    return {
      ...{ kind: shape.kind, groups, spares: by, distributed: shape.distributed ?? 0, data: shape.data ?? 0 },
      left: order.filter((i) => !used.has(i)),
    };
  };
  // A spare must be able to stand in for any drive, so the largest stand by.
  const apart = [order.slice(spares, spares + n), order.slice(0, spares)] as const;
  const whole = order.slice(0, n + spares);
  return [
    ...zfsShapes(n, 0)
      .filter((s) => !s.distributed)
      .map((s) => made(s, ...apart)),
    ...zfsShapes(n + spares, spares)
      .filter((s) => s.distributed)
      .map((s) => made(s, whole, [])),
    ...[...mdShapes(n), ...controllerShapes(n)].map((s) => made(s, ...apart)),
  ];
}
