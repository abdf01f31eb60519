import { evidence, hit } from "../../finding";
import { formatBytes } from "../../units";
import { percent } from "../bench";
import { figuresOf, setName, volumesOf, type PlannedSet, type VolumesView } from "../sets";
import type { StorageGround } from "../ground";
import { eachSet, SETS } from "./set-rule";
import type { StorageRule } from "./rule";

/** What is made on a set, where its drives make one. */
function volumes(ground: StorageGround, set: PlannedSet): VolumesView | null {
  const figures = figuresOf(ground, set);
  return figures.ok ? volumesOf(set, figures.value) : null;
}

/** A thick volume that takes this much more than its size wastes space by its block. */
const MUCH_PADDING = 1.1;
const SMALLEST_CASE = 2 ** 30;

/** Rules about what stands beside the data of a set, and what is made on it. */
export const SET_VOLUME_CHECKS: readonly StorageRule[] = [
  eachSet("storage.set-special", (ground, set) => {
    const figures = figuresOf(ground, set);
    if (set.special.length === 0 || !figures.ok) return null;
    const bears = set.special.length - 1;
    const { worst } = figures.value.candidate.survival;
    return bears < worst || bears === 0
      ? hit(
          bears === 0 ? "stop" : "caution",
          SETS,
          { set: setName(set), special: String(bears), data: String(worst) },
          evidence("special devices", String(set.special.length), "this sheet"),
          evidence("fault tolerance of the data", String(worst), "computed"),
        )
      : null;
  }),

  eachSet("storage.set-log", (_, set) =>
    set.logs.length === 1
      ? hit("note", SETS, { set: setName(set) }, evidence("log devices", "1", "this sheet"))
      : null,
  ),

  eachSet("storage.set-volumes", (ground, set) => {
    const found = volumes(ground, set);
    return found?.fault
      ? hit(
          "stop",
          SETS,
          { set: setName(set), fault: found.fault },
          evidence("used", formatBytes(found.takenBytes), "computed"),
          evidence("available", formatBytes(found.roomBytes), "computed"),
        )
      : null;
  }),

  eachSet("storage.set-promised", (ground, set) => {
    const found = volumes(ground, set);
    if (!found || found.fault || set.provision !== "thin" || found.promisedBytes <= found.roomBytes)
      return null;
    return hit(
      "caution",
      SETS,
      {
        ...{ set: setName(set), promised: formatBytes(found.promisedBytes) },
        ...{ room: formatBytes(found.roomBytes), share: percent(found.promisedBytes / found.roomBytes) },
      },
      evidence("promised", formatBytes(found.promisedBytes), "this sheet"),
      evidence("available", formatBytes(found.roomBytes), "computed"),
    );
  }),

  eachSet("storage.set-padding", (ground, set) => {
    const wasteful = (volumes(ground, set)?.volumes ?? []).filter(
      (v) =>
        set.keeper === "ZFS" &&
        v.promisedBytes !== null &&
        v.promisedBytes >= SMALLEST_CASE &&
        v.takesBytes > MUCH_PADDING * v.promisedBytes,
    );
    const [first] = wasteful;
    if (!first) return null;
    return hit(
      "caution",
      SETS,
      {
        ...{ set: setName(set), volumes: wasteful.map((v) => v.name).join(", ") },
        ...{ takes: formatBytes(first.takesBytes), size: formatBytes(first.promisedBytes!) },
      },
      evidence(
        "blocks of",
        `${set.volumes.find((v) => v.name === first.name)?.blockKib ?? 0} KiB`,
        "this sheet",
      ),
    );
  }),

  eachSet("storage.set-thick", (_, set) =>
    set.keeper !== "ZFS" && set.use === "guests" && set.provision === "thick" && set.volumes.length > 0
      ? hit("note", SETS, { set: setName(set) }, evidence("volumes", set.provision, "this sheet"))
      : null,
  ),
];
