import { allocated, deflated, vdevFigures, type VdevFigures } from "./vdev";
import type { VdevShape } from "./shape";

const MIB = 2 ** 20;
const GIB = 2 ** 30;
const SLOP_SHIFT = 32;
const LEAST_SLOP = 128 * MIB;
const MOST_SLOP = 128 * GIB;

/** A pool of data vdevs, in bytes. */
export interface PoolFigures {
  vdevs: VdevFigures[];
  /** What the pool calls its size: raw, with parity and the log inside the pool. */
  size: number;
  /** Normal class, and the log inside the pool, as they count for users. */
  space: number;
  logSpace: number;
  slop: number;
  /** What can be used: available and used of the root dataset together. */
  usable: number;
}

const sum = <T>(all: readonly T[], of: (one: T) => number): number => all.reduce((n, one) => n + of(one), 0);

/**
 * What ZFS keeps for itself: a 32nd between 128 MiB and 128 GiB, less the log inside the pool by at most half of it, and
 * never more than half the pool (spa_get_slop_space of OpenZFS 2.1 and later).
 */
export function slopSpace(space: number, logSpace: number): number {
  const share = Math.min(Math.floor(space / SLOP_SHIFT), MOST_SLOP);
  const slop = share - Math.min(logSpace, Math.floor(share / 2));
  return Math.max(slop, Math.min(Math.floor(space / 2), LEAST_SLOP));
}

/** The figures of a pool from its data vdevs; special, spare, log and cache devices add nothing to what is usable. */
export function poolFigures(shapes: readonly VdevShape[]): PoolFigures {
  const vdevs = shapes.map(vdevFigures);
  const space = sum(vdevs, (v) => deflated(v.shape, v.normal));
  const logSpace = sum(vdevs, (v) => deflated(v.shape, v.log));
  const slop = slopSpace(space, logSpace);
  return {
    ...{ vdevs, space, logSpace, slop, usable: Math.max(0, space - slop) },
    size: sum(vdevs, (v) => v.normal + v.log),
  };
}

const INDIRECT = 128 * 2 ** 10;
const POINTERS = 1024;

/** A thick volume's reservation: its blocks with parity and padding, and the blocks that point to them (libzfs). */
export function thickReservation(shapes: readonly VdevShape[], volume: number, block: number): number {
  const blocks = Math.floor(volume / block);
  // What blocks take is told in the terms of a 128 KiB block, since the pool counts its space so.
  const padded = shapes
    .filter((s) => s.kind === "raidz" || s.kind === "draid")
    .map(
      (s) => Math.floor((blocks * allocated(s, block)) / (allocated(s, INDIRECT) / 512)) * (INDIRECT / 512),
    );
  let pointing = 7;
  for (let level = blocks; level > 1;) {
    level = Math.floor((level + POINTERS - 1) / POINTERS);
    pointing += level;
  }
  return Math.max(0, ...(padded.length > 0 ? padded : [blocks * block])) + pointing * 2 * INDIRECT;
}

/**
 * Bytes that a block pointer takes on the disk once its block is compressed: its checksum of 32, and what LZ4 needs to say where
 * it and its address differ from the one before. As made of pointers to random data with LZ4; whole sectors hide a tenth of it.
 */
const POINTER_BYTES = 41;

/** What is written of pointers to so many data blocks, in bytes on the vdev, for `copies` of them. */
function pointerBytes(shape: VdevShape, blocks: number, copies: number): number {
  const sector = 2 ** shape.ashift;
  let bytes = 0;
  for (let level = blocks; level > 1; level = Math.ceil(level / POINTERS)) {
    const full = Math.floor(level / POINTERS);
    const rest = level % POINTERS;
    const one = (pointers: number): number =>
      allocated(shape, Math.ceil((pointers * POINTER_BYTES) / sector) * sector);
    bytes += full * one(POINTERS) + (rest > 0 ? one(rest) : 0);
  }
  return bytes * copies;
}

/** Bytes of the pool's space that data in blocks takes, as it counts them: data without compression, and what points to it. */
export function spaceOf(shape: VdevShape, bytes: number, block: number, copies = 2): number {
  const blocks = Math.ceil(bytes / block);
  return deflated(shape, blocks * allocated(shape, block) + pointerBytes(shape, blocks, copies));
}

/** Blocks of one sector that describe a volume beside its data: its set of objects with what belongs to it, as measured. */
const VOLUME_BLOCKS = 14;

/** What a volume takes once so many bytes of it have been written; true to a thousandth. */
export const volumeSpace = (shape: VdevShape, written: number, block: number): number =>
  spaceOf(shape, written, block) + VOLUME_BLOCKS * deflated(shape, allocated(shape, 2 ** shape.ashift));

/** 512-byte units that a file shows, by its length and the record size: one record holds a short file whole, cut to 512. */
export function fileUnits(shape: VdevShape, bytes: number, record: number): number {
  const whole = Math.ceil(bytes / 512) * 512;
  const used = whole <= record ? deflated(shape, allocated(shape, whole)) : spaceOf(shape, bytes, record);
  // The length of the file's own entry counts as one unit.
  return Math.floor((used + 256) / 512) + 1;
}
