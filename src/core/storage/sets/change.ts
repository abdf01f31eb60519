import type { Kind } from "../bench/layout";
import type { PlannedSet } from "./planned";
import { SET_TYPES, type SetType } from "./set-types";
import { SEAT_LISTS, SEAT_ROLES, type SeatRole } from "./seats";

/** A layout of the bench as far as a set takes it over. */
export interface Chosen {
  kind: Kind;
  groups: readonly (readonly number[])[];
  spares: readonly number[];
  left: readonly number[];
  data: number;
  distributed: number;
}

type Sets = readonly PlannedSet[];

/** The key of a new set: the least number that none has. */
export function nextSetId(sets: Sets): string {
  let n = 1;
  while (sets.some((s) => s.id === String(n))) n += 1;
  return String(n);
}

const NAMES = ["tank", "store", "depot", "vault"];

/** A set of these drives, in one group with as much parity as they bear, and a name that no other has. */
export function newSet(sets: Sets, members: readonly string[], taken: readonly string[] = []): PlannedSet {
  const id = nextSetId(sets);
  const used = new Set([...sets.map((s) => s.name), ...taken]);
  const n = members.length;
  const type: SetType = n >= 5 ? "raidz2" : n >= 3 ? "raidz1" : n === 2 ? "mirror" : "stripe";
  return {
    ...{ id, keeper: "ZFS", type, members: [...members], groups: 1, spares: [], data: 0, distributed: 0 },
    ...{ special: [], logs: [], caches: [], provision: "thick", volumes: [] },
    name: NAMES.find((name) => !used.has(name)) ?? `set${id}`,
    ...{ use: "bulk files", dataBytes: null, stripeKib: null, cache: "not said", later: null },
  };
}

/** The sets once a drive belongs to one of them, or to none: a drive is in one place only. */
export const seatIn = (sets: Sets, drive: string, id: string | null, role: SeatRole): PlannedSet[] =>
  sets.map((set) => {
    const next = { ...set };
    for (const other of SEAT_ROLES) {
      const list = set[SEAT_LISTS[other]];
      // A drive that stays keeps its place: of several groups the order tells which is in which.
      if (set.id === id && other === role) next[SEAT_LISTS[other]] = [...new Set([...list, drive])];
      else next[SEAT_LISTS[other]] = list.filter((d) => d !== drive);
    }
    return next;
  });

const typeOf = ({ type }: Chosen["kind"]): SetType => SET_TYPES.find((known) => known === String(type))!;

/** The set in a layout that the bench found for its drives, which stand in `drives` by the places of the layout. */
export function inLayout(
  set: PlannedSet,
  { kind, groups, spares, data, distributed }: Chosen,
  drives: readonly string[],
): PlannedSet {
  const named = (places: readonly number[]): string[] => places.map((i) => drives[i]!);
  return {
    ...set,
    ...{ keeper: kind.school, type: typeOf(kind), data, distributed },
    ...{ groups: groups.length, members: named(groups.flat()), spares: named(spares) },
  };
}
