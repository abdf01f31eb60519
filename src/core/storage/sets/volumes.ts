import { btrfsFigures, ext4Figures, LEAST_BTRFS, xfsFault, xfsFigures, type Stripe } from "../filesystem";
import { ringWidth } from "../md";
import { extentsOf, physicalVolume, thinMetadata, thinPool, type ThinPool } from "../lvm";
import { thickReservation } from "../zfs";
import { shapesOf, type SetFigures } from "./figures";
import type { PlannedSet, PlannedVolume } from "./planned";

/** A volume with what it is promised, what it takes of the set at once, and what `df` will show of it. */
export interface VolumeView {
  name: string;
  /** Null: a file system of a pool, which takes what is in it. */
  promisedBytes: number | null;
  takesBytes: number;
  dfBytes: number | null;
}

/** The volumes of a set against the room that there is for them, in bytes. */
export interface VolumesView {
  volumes: VolumeView[];
  roomBytes: number;
  takenBytes: number;
  promisedBytes: number;
  /** Of thin logical volumes: the pool that they share, and the metadata that they need once it is full. */
  thin: (ThinPool & { needs: number }) | null;
  /** Why they cannot be made, in words; null where they can. */
  fault: string | null;
}

const EXTENT = 4 * 2 ** 20;
const KIB = 2 ** 10;
/** The chunk of md where nobody asks for another. */
const MD_CHUNK_KIB = 512;

/** The names that each keeper takes for what stands on a set. */
const NAMES: Readonly<Record<"pool" | "group", RegExp>> = {
  pool: /^[A-Za-z0-9][A-Za-z0-9_.:-]{0,59}$/,
  group: /^(?!snapshot|pvmove|.*_(?:tdata|tmeta|mlog|mimage))[A-Za-z0-9_][A-Za-z0-9_.+-]{0,59}$/,
};

function nameFault(set: PlannedSet): string | null {
  const names = set.volumes.map((v) => v.name);
  const twice = names.find((n, i) => names.indexOf(n) !== i);
  if (twice !== undefined) return `two of its volumes have the name "${twice}"`;
  const wrong = names.find((n) => !NAMES[set.keeper === "ZFS" ? "pool" : "group"].test(n));
  if (wrong === "") return "one of its volumes has no name";
  return wrong === undefined ? null : `"${wrong}" is not a valid volume name`;
}

/** The stripes of an array, at a whole one of which its first extent begins; null where it has none. */
export function stripeOf({ keeper, type, members, stripeKib }: PlannedSet): Stripe | null {
  const level = Number(type);
  if (keeper !== "md" || level === 1) return null;
  const data =
    level === 10
      ? ringWidth({ members: members.length, copies: 2, layout: "near" })
      : members.length - (level === 6 ? 2 : level === 5 ? 1 : 0);
  return { unitBytes: (stripeKib ?? MD_CHUNK_KIB) * KIB, members: data };
}

function onPool(set: PlannedSet, figures: SetFigures): VolumesView {
  const shapes = shapesOf(figures);
  const volumes = set.volumes.map(({ name, bytes, blockKib }): VolumeView => {
    const block = blockKib * KIB;
    // A volume is whole blocks.
    const promised = bytes === null ? null : Math.ceil(bytes / block) * block;
    const takes =
      promised === null || set.provision === "thin" ? 0 : thickReservation(shapes, promised, block);
    return { name, promisedBytes: promised, takesBytes: takes, dfBytes: null };
  });
  return judged(set, volumes, figures.candidate.usableBytes, null);
}

function dfOf(fs: PlannedVolume["fs"], bytes: number, stripe: Stripe | null): number | null {
  if (fs === "ext4") return ext4Figures(bytes).sizeBytes;
  if (fs === "btrfs") return bytes < LEAST_BTRFS ? null : btrfsFigures(bytes).sizeBytes;
  return fs === "xfs" && xfsFault(bytes, stripe) === null ? xfsFigures(bytes, 512, stripe).sizeBytes : null;
}

function onGroup(set: PlannedSet, figures: SetFigures): VolumesView {
  const stripe = stripeOf(set);
  const width = stripe ? stripe.unitBytes * stripe.members : 0;
  const { extents } = physicalVolume(figures.candidate.usableBytes, width);
  const isThin = set.provision === "thin";
  const pool = isThin ? thinPool(extents) : null;
  const thin = pool && { ...pool, needs: thinMetadata(pool.data, pool.chunk, set.volumes.length) };
  const room = thin ? thin.data : extents * EXTENT;
  const sized = set.volumes.reduce((n, v) => n + (v.bytes === null ? 0 : extentsOf(v.bytes) * EXTENT), 0);
  const volumes = set.volumes.map(({ name, bytes, fs }): VolumeView => {
    const rest = isThin ? room : Math.max(0, room - sized);
    const promised = bytes === null ? rest : extentsOf(bytes) * EXTENT;
    return {
      name,
      promisedBytes: promised,
      takesBytes: isThin ? 0 : promised,
      dfBytes: dfOf(fs, promised, stripe),
    };
  });
  return judged(set, volumes, room, thin);
}

function judged(
  set: PlannedSet,
  volumes: VolumeView[],
  roomBytes: number,
  thin: VolumesView["thin"],
): VolumesView {
  const takenBytes = volumes.reduce((n, v) => n + v.takesBytes, 0);
  const rests = set.volumes.filter((v) => v.bytes === null).length;
  const lost = set.volumes.find(({ fs }, i) => {
    const { dfBytes, promisedBytes } = volumes[i]!;
    return fs !== "none" && dfBytes === null && promisedBytes !== null;
  });
  const fault =
    nameFault(set) ??
    (set.keeper !== "ZFS" && rests > 1 ? "two of its volumes use all remaining space" : null) ??
    (thin && thin.needs > thin.metadata ? "its volumes need more metadata than their pool has" : null) ??
    (takenBytes > roomBytes ? "its volumes use more than is available" : null) ??
    (volumes.some((v) => v.promisedBytes === 0) ? "no space is left for one of its volumes" : null) ??
    (set.keeper !== "ZFS" && lost
      ? `"${lost.name}" is too small for ${lost.fs === "xfs" ? "XFS" : "Btrfs"}`
      : null);
  return {
    ...{ volumes, roomBytes, takenBytes, thin, fault },
    promisedBytes: volumes.reduce((n, v) => n + (v.promisedBytes ?? 0), 0),
  };
}

/** What is made on a set, with the room that there is; null while nothing is planned on it. */
export function volumesOf(set: PlannedSet, figures: SetFigures): VolumesView | null {
  if (set.volumes.length === 0) return null;
  return set.keeper === "ZFS" ? onPool(set, figures) : onGroup(set, figures);
}
