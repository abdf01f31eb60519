const MIB = 2 ** 20;
const EXTENT = 4 * MIB;

/** A physical volume in its group, in bytes and extents. */
export interface PhysicalVolume {
  start: number;
  extents: number;
  bytes: number;
}

const up = (value: number, unit: number): number => Math.ceil(value / unit) * unit;

/**
 * Where extents begin, and how many fit: behind 1 MiB, and at a whole stripe where the device below tells one (LVM 2.03).
 */
export function physicalVolume(device: number, stripe = 0, extent = EXTENT): PhysicalVolume {
  const start = stripe > 0 ? up(MIB, stripe) : MIB;
  const extents = Math.max(0, Math.floor((device - start) / extent));
  return { start, extents, bytes: extents * extent };
}

/** Extents of a volume of a size: whole ones, rounded up. */
export const extentsOf = (bytes: number, extent = EXTENT): number => Math.ceil(bytes / extent);

/** A thin pool in a group, in bytes. */
export interface ThinPool {
  chunk: number;
  metadata: number;
  data: number;
}

const LEAST_CHUNK = 64 * 2 ** 10;
const MOST_CHUNK = 2 ** 30;
const LEAST_METADATA = 2 * MIB;
const MOST_METADATA = 16 * 2 ** 30;
/** What a chunk takes in the metadata, and the metadata that the tool likes best. */
const PER_CHUNK = 64;
const BEST_METADATA = 128 * MIB;

const metadataFor = (bytes: number, chunk: number): number => Math.ceil(bytes / chunk) * PER_CHUNK;

/** The chunk for so much data: the smallest power of two with which the metadata stays below 128 MiB. */
export function thinChunk(bytes: number): number {
  let chunk = LEAST_CHUNK;
  while (chunk < MOST_CHUNK && metadataFor(bytes, chunk) > BEST_METADATA) chunk *= 2;
  return chunk;
}

/** A thin pool over all free extents: the metadata stands there twice, once as the spare for its repair. */
export function thinPool(freeExtents: number, extent = EXTENT): ThinPool {
  const whole = freeExtents * extent;
  const chunk = thinChunk(whole);
  const wanted = Math.min(MOST_METADATA, Math.max(LEAST_METADATA, metadataFor(whole, chunk)));
  const metadata = up(wanted, extent);
  return { chunk, metadata, data: Math.max(0, whole - 2 * metadata) };
}

const NODE = 4096;

/**
 * Metadata that so many thin volumes over a pool need at the most: a node of the tree for each volume, and one for each
 * 126 chunks, half of what a node holds (thin-provisioning-tools 0.9).
 */
export const thinMetadata = (pool: number, chunk: number, volumes: number): number =>
  (Math.floor(Math.ceil(pool / chunk) / 126) + 1 + volumes) * NODE;
