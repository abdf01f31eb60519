/** A btrfs on one device as mkfs.btrfs 6.2 makes it with its defaults. */
export interface BtrfsFigures {
  blocks: number;
  /** Of one copy; two stand on the device. */
  metadataBytes: number;
  /** What `df` shows as size, as free and as available, in bytes, of the empty file system. */
  sizeBytes: number;
  freeBytes: number;
  availableBytes: number;
}

const KIB = 2 ** 10;
const MIB = 2 ** 20;
const GIB = 2 ** 30;
const BLOCK = 4 * KIB;
const STRIPE = 64 * KIB;
/** mkfs.btrfs refuses less. */
export const LEAST_BTRFS = 109 * MIB;
/** The first MiB, and the chunk for the system twice. */
const FIXED = MIB + 2 * 8 * MIB;
/** Used at once, with what is kept for the file system itself; as measured. */
const USED_BLOCKS = 1480;

/** A twentieth for metadata, 32 to 256 MiB; above 50 GiB it is 1 GiB. */
const metadataOf = (bytes: number): number =>
  bytes > 50 * GIB ? GIB : Math.min(256 * MIB, Math.max(32 * MIB, Math.floor(bytes / 20 / STRIPE) * STRIPE));

export function btrfsFigures(bytes: number): BtrfsFigures {
  const blocks = Math.floor(bytes / BLOCK);
  const metadataBytes = metadataOf(bytes);
  const whole = Math.floor(bytes / STRIPE) * STRIPE;
  return {
    ...{ blocks, metadataBytes, sizeBytes: blocks * BLOCK },
    freeBytes: (blocks - USED_BLOCKS) * BLOCK,
    availableBytes: whole - 2 * metadataBytes - FIXED,
  };
}
