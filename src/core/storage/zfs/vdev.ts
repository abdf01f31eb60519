import type { VdevShape } from "./shape";

const KIB = 2 ** 10;
const MIB = 2 ** 20;
/** A label is 256 KiB: two stand in front, with 3.5 MiB of boot area behind them, and two at the end. */
const LABEL = 256 * KIB;
const LABELS = 4 * MIB + 512 * KIB;

const down = (value: number, unit: number): number => Math.floor(value / unit) * unit;
const up = (value: number, unit: number): number => Math.ceil(value / unit) * unit;
/** 1-based place of the highest bit, as ZFS counts it. */
const highBit = (value: number): number => (value < 1 ? 0 : Math.floor(Math.log2(value)) + 1);

/** Bytes of a device between its labels. */
export const insideLabels = (device: number): number => down(device, LABEL) - LABELS;

/** Rows of a dRAID are 16 MiB on each device; the place of two rows is kept for growing. */
const DRAID_ROW = 16 * MIB;
const DRAID_RESERVE = 2 * DRAID_ROW;

/**
 * Bytes that can be allocated on a top-level vdev, parity included: of mixed devices the smallest counts (vdev_mirror.c,
 * vdev_raidz.c, vdev_draid.c of OpenZFS 2.3).
 */
export function vdevBytes({ kind, devices, parity, data, spares }: VdevShape): number {
  const least = Math.min(...devices.map(insideLabels));
  if (kind === "raidz") return least * devices.length;
  if (kind !== "draid") return least;
  const rows = down(least - DRAID_RESERVE, DRAID_ROW);
  return down(rows * (devices.length - spares), (data + parity) * DRAID_ROW);
}

const DEFAULT_SHIFT = 29;
const MOST_SHIFT = 34;
const MAX_BLOCK_SHIFT = 24;

/** Size of a metaslab as a power of two: about two hundred of them, and none above 16 GiB (vdev_metaslab_set_size). */
export function metaslabShift(bytes: number): number {
  const count = Math.floor(bytes / 2 ** DEFAULT_SHIFT);
  const shift =
    count < 16
      ? highBit(Math.floor(bytes / 16))
      : count > 200
        ? highBit(Math.floor(bytes / 200))
        : DEFAULT_SHIFT;
  if (shift < MAX_BLOCK_SHIFT) return MAX_BLOCK_SHIFT;
  if (shift <= MOST_SHIFT) return shift;
  return bytes / 2 ** MOST_SHIFT > 2 ** 17 ? highBit(Math.floor(bytes / 2 ** 17)) : MOST_SHIFT;
}

/** Bytes that a block of `psize` takes on a vdev, with its parity and padding (vdev_psize_to_asize). */
export function allocated({ kind, devices, parity, data, ashift }: VdevShape, psize: number): number {
  const sector = 2 ** ashift;
  if (kind === "raidz") {
    const sectors = Math.ceil(psize / sector);
    const rows = Math.ceil(sectors / (devices.length - parity));
    return up(sectors + parity * rows, parity + 1) * sector;
  }
  if (kind === "draid") return Math.ceil(psize / (data * sector)) * (data + parity) * sector;
  return up(psize, sector);
}

const OLD_MAX_BLOCK = 128 * KIB;

/** Of 512: what raw bytes of a vdev count for, taken from a block of 128 KiB (vdev_set_deflate_ratio). */
export const deflateRatio = (vdev: VdevShape): number =>
  Math.floor(OLD_MAX_BLOCK / (allocated(vdev, OLD_MAX_BLOCK) / 512));

/** Raw bytes as the pool counts them for its users. */
export const deflated = (vdev: VdevShape, raw: number): number => Math.floor(raw / 512) * deflateRatio(vdev);

/** A top-level vdev as the pool sees it, in bytes. */
export interface VdevFigures {
  shape: VdevShape;
  /** Between the labels of the device that counts. */
  perDevice: number;
  bytes: number;
  metaslabShift: number;
  metaslabs: number;
  ratio: number;
  /** Raw bytes in whole metaslabs for data, and those set aside for the log inside the pool. */
  normal: number;
  log: number;
}

/** A vdev with more metaslabs than this gives one to the log inside the pool. */
const LEAST_FOR_LOG = 64;

/** Lengths of all metaslabs together, and of the first one; in dRAID each begins and ends at a group's row. */
function metaslabBytes({ kind, data, parity, ashift }: VdevShape, shift: number, count: number) {
  const size = 2 ** shift;
  if (kind !== "draid") return { all: size * count, first: size };
  const row = (data + parity) * 2 ** ashift;
  // Where rows begin inside a metaslab repeats after as many of them as a row has sectors.
  const period = data + parity;
  const lengths = Array.from({ length: period }, (_, i) => down(size - (up(i * size, row) - i * size), row));
  const sum = (some: readonly number[]): number => some.reduce((n, l) => n + l, 0);
  const all = sum(lengths) * Math.floor(count / period) + sum(lengths.slice(0, count % period));
  return { all, first: lengths[0]! };
}

export function vdevFigures(shape: VdevShape): VdevFigures {
  const bytes = vdevBytes(shape);
  const shift = metaslabShift(bytes);
  const metaslabs = Math.floor(bytes / 2 ** shift);
  const { all, first } = metaslabBytes(shape, shift, metaslabs);
  const log = metaslabs > LEAST_FOR_LOG ? first : 0;
  return {
    ...{ shape, bytes, metaslabs, log, metaslabShift: shift },
    perDevice: Math.min(...shape.devices.map(insideLabels)),
    ratio: deflateRatio(shape),
    normal: all - log,
  };
}
