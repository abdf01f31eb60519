import { fail, ok, type Result } from "../../result";
import { kindNamed, type Kind, type Layout } from "../bench/layout";
import { vdevShape, shapeFault } from "../zfs";
import type { PlannedSet } from "./planned";
import type { Seated } from "./seats";

const POOL_NAME = /^[A-Za-z][A-Za-z0-9_.:-]{0,59}$/;
/** A name that begins like a kind of vdev is refused by the pool's tool. */
const NO_POOL_NAME = /^(mirror|raidz|draid|spare|c\d|log$)/;
const ARRAY_NAME = /^[A-Za-z0-9][A-Za-z0-9_-]{0,31}$/;
const VIRTUAL_NAME = /^[\x21-\x7e]{1,15}$/;

const LEAST: Readonly<Record<string, number>> = { "0": 2, "1": 2, "5": 3, "6": 4, "50": 3, "60": 4 };

/** Whether a name is one that the keeper of a set takes; what is wrong in words, or null. */
export function nameFault({ keeper, name }: Pick<PlannedSet, "keeper" | "name">): string | null {
  if (name === "") return "it has no name";
  if (keeper === "ZFS")
    return POOL_NAME.test(name) && !NO_POOL_NAME.test(name)
      ? null
      : `"${name}" is not a pool name: use a letter, then letters, digits and _ . : -`;
  if (keeper === "md")
    return ARRAY_NAME.test(name)
      ? null
      : `"${name}" is not an array name: use up to 32 letters, digits, _ and -`;
  return VIRTUAL_NAME.test(name)
    ? null
    : `"${name}" is not a virtual drive name: use up to 15 letters, digits and symbols`;
}

/** The kind of a set as the bench knows it; null where its keeper knows no such layout. */
export const kindOf = ({ keeper, type }: Pick<PlannedSet, "keeper" | "type">): Kind | null =>
  kindNamed(keeper, type);

/** The fewest members of a group. */
function leastWidth({ type, keeper, data, distributed }: PlannedSet): number {
  if (type === "stripe") return 1;
  if (type === "mirror") return 2;
  // md makes RAID10 of three drives too.
  if (type === "10") return keeper === "md" ? 3 : 4;
  const parity = Number(/^(?:raidz|draid)(\d)$/.exec(type)?.[1] ?? 0);
  if (type.startsWith("draid")) return Math.max(1, data) + parity + distributed;
  return parity > 0 ? parity + 1 : (LEAST[type] ?? 2);
}

const hasHelpers = ({ special, logs, caches }: Seated): boolean =>
  special.length + logs.length + caches.length > 0;

/**
 * A planned set as a layout of the bench: places 0 to n - 1 are its members in their order, the spares come behind. Fails
 * with what does not fit, in words that go on after "the set".
 */
export function layoutOf(set: PlannedSet): Result<Layout> {
  const { keeper, type, members, spares, groups, distributed } = set;
  const kind = kindOf(set);
  const wrong = (message: string): Result<Layout> => fail({ message });
  if (!kind) return wrong(`${keeper} does not support ${Number.isNaN(Number(type)) ? type : `RAID${type}`}`);
  if (members.length === 0) return wrong("it has no drives");
  if (keeper !== "ZFS" && hasHelpers(set))
    return wrong(`${keeper} does not support special, log and cache devices`);
  if (members.length % groups !== 0)
    return wrong(`${members.length} drives cannot form ${groups} groups of equal width`);
  const width = members.length / groups;
  if (keeper !== "ZFS" && groups > 1 && !["50", "60"].includes(type))
    return wrong(`${keeper} supports one group of RAID${type}`);
  if (["50", "60"].includes(type) && groups < 2) return wrong(`RAID${type} needs at least two groups`);
  if (type === "10" && keeper !== "md" && width % 2 === 1)
    return wrong("RAID10 of a controller needs an even number of drives");
  if (type === "stripe" && width > 1) return wrong("single drives are groups of one drive each");
  const least = leastWidth(set);
  if (width < least) return wrong(`a group has ${width} drives and needs at least ${least}`);
  const data = type.startsWith("draid") ? Math.max(1, set.data) : 0;
  const fault =
    keeper === "ZFS"
      ? shapeFault(
          vdevShape(type, Array<number>(width).fill(1e12), 12, data ? { data, spares: distributed } : {}),
        )
      : null;
  if (fault) return wrong(fault);
  const places = [...members.keys()];
  return ok({
    ...{ kind, data, distributed: data ? distributed : 0, left: [], chunkKib: set.stripeKib },
    groups: Array.from({ length: groups }, (_, i) => places.slice(i * width, (i + 1) * width)),
    spares: spares.map((_, i) => members.length + i),
  });
}
