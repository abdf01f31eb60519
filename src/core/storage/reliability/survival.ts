/** Drives of which some may fail: groups that tolerate so many losses each, or a ring of copies on neighbours. */
export type Redundancy =
  | { kind: "groups"; groups: readonly (readonly [members: number, tolerates: number])[] }
  /** RAID10 with two copies on an odd number of drives: chunk i stands on drives 2i and 2i + 1, modulo n. */
  | { kind: "ring"; members: number };

/** Of all sets of k failed drives, how many leave every datum readable. */
export interface SurvivalRow {
  k: number;
  survived: bigint;
  total: bigint;
  fraction: number;
}

export interface Survival {
  drives: number;
  /** So many may fail whichever they are; and so many may if they are the right ones. */
  worst: number;
  best: number;
  rows: SurvivalRow[];
}

/** n over k, exact. */
export function choose(n: number, k: number): bigint {
  if (k < 0 || k > n) return 0n;
  let value = 1n;
  for (let i = 1; i <= Math.min(k, n - k); i += 1) value = (value * BigInt(n - i + 1)) / BigInt(i);
  return value;
}

export const drivesIn = (of: Redundancy): number =>
  of.kind === "ring" ? of.members : of.groups.reduce((n, [members]) => n + members, 0);

/** Sets of k drives that are survived, by k: of groups the product of their polynomials, of a ring those without neighbours. */
function survivedSets(of: Redundancy): bigint[] {
  if (of.kind === "ring") {
    const { members: n } = of;
    // k of n in a circle, no two beside each other: n / (n - k) times (n - k over k).
    return Array.from({ length: Math.floor(n / 2) + 1 }, (_, k) =>
      k === 0 ? 1n : (BigInt(n) * choose(n - k, k)) / BigInt(n - k),
    );
  }
  return of.groups.reduce<bigint[]>(
    (sum, [members, tolerates]) => {
      const next = Array<bigint>(sum.length + Math.min(members, tolerates)).fill(0n);
      sum.forEach((ways, k) => {
        for (let j = 0; j <= Math.min(members, tolerates); j += 1) next[k + j]! += ways * choose(members, j);
      });
      return next;
    },
    [1n],
  );
}

/** A fraction of two whole numbers of any size, to the precision of a double. */
const fractionOf = (part: bigint, whole: bigint): number =>
  whole === 0n ? 0 : part === whole ? 1 : Number((part * 10n ** 18n) / whole) / 1e18;

/** Counted exactly for any number of drives; ends with the first k that no set survives. */
export function survival(of: Redundancy): Survival {
  const drives = drivesIn(of);
  const sets = survivedSets(of);
  const rows = Array.from({ length: Math.min(sets.length + 1, drives + 1) }, (_, k): SurvivalRow => {
    const total = choose(drives, k);
    const survived = sets[k] ?? 0n;
    return {
      k,
      survived,
      total,
      fraction:
        Number(survived) <= Number.MAX_SAFE_INTEGER && Number(total) <= Number.MAX_SAFE_INTEGER
          ? Number(survived) / Number(total)
          : fractionOf(survived, total),
    };
  });
  return {
    ...{ drives, rows },
    worst: rows.findLastIndex((r, k) => rows.slice(0, k + 1).every((x) => x.survived === x.total)),
    best: rows.findLastIndex((r) => r.survived > 0n),
  };
}
