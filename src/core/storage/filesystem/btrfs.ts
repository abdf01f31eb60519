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

/**
 * For metadata 256 MiB, and 1 GiB above 50 GiB; where that is more than a tenth of the file system, a tenth is shared by both
 * copies, and each has 32 MiB at least (decide_stripe_size_regular).
 */
function metadataOf(bytes: number): number {
  const wanted = bytes > 50 * GIB ? GIB : 256 * MIB;
  const tenth = Math.floor(bytes / 10);
  return wanted <= tenth ? wanted : Math.max(32 * MIB, Math.floor(tenth / 2 / STRIPE) * STRIPE);
}

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
