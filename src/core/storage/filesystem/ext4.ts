/** An ext4 as mke2fs 1.47 makes it with its defaults; in blocks unless a name says otherwise. */
export interface Ext4Figures {
  blockBytes: number;
  blocks: number;
  inodes: number;
  /** Kept for the super-user. */
  reserved: number;
  journal: number;
  /** Tables, bitmaps, copies of the descriptors, and the journal. */
  overhead: number;
  /** What `df` shows as size and as available, in bytes, of the empty file system. */
  sizeBytes: number;
  availableBytes: number;
}

const MIB = 2 ** 20;
const TIB = 2 ** 40;
const INODE_BYTES = 256;
const DESCRIPTOR_BYTES = 64;
const MOST_32 = 2 ** 32 - 1;

/** What may be asked of mke2fs otherwise than it does by itself. */
export interface Ext4Options {
  blockBytes?: number;
  bytesPerInode?: number;
  reservePercent?: number;
}

/** Bytes to an inode, and to a block, by the size: small, usual, big and huge ones (mke2fs.conf). */
function kindOf(bytes: number): { block: number; ratio: number } {
  if (bytes < 3 * MIB) return { block: 1024, ratio: 8192 };
  if (bytes < 512 * MIB) return { block: 1024, ratio: 4096 };
  if (bytes < 4 * TIB) return { block: 4096, ratio: 16_384 };
  return { block: 4096, ratio: bytes < 16 * TIB ? 32_768 : 65_536 };
}

/** Blocks of the journal by those of the file system (ext2fs_default_journal_size). */
function journalOf(blocks: number): number {
  const K = 1024;
  if (blocks < 2048) return 0;
  if (blocks < 32_768) return 1024;
  const steps = [256 * K, 512 * K, 4096 * K, 8192 * K, 16_384 * K, 32_768 * K];
  const at = steps.findIndex((s) => blocks < s);
  return 4096 * 2 ** (at === -1 ? 6 : at);
}

/** Whether a group keeps a copy of the descriptors: 0, 1, and the powers of 3, 5 and 7. */
function keepsCopy(group: number): boolean {
  if (group <= 1) return true;
  return [3, 5, 7].some((base) => {
    let power = base;
    while (power < group) power *= base;
    return power === group;
  });
}

function copies(groups: number): number {
  let kept = 0;
  for (let g = 0; g < groups; g += 1) if (keepsCopy(g)) kept += 1;
  return kept;
}

/** Bytes of a block, the first block of the first group, and blocks of a group. */
interface Grain {
  block: number;
  first: number;
  size: number;
}

/** Blocks kept so that the descriptors can grow a thousandfold; none above 2^32 blocks. */
function growthBlocks({ block, first, size }: Grain, blocks: number, descriptors: number): number {
  if (blocks > MOST_32) return 0;
  const most = blocks < MOST_32 / 1024 ? blocks * 1024 : MOST_32;
  const groups = Math.ceil((most - first) / size);
  const wanted = Math.ceil(groups / (block / DESCRIPTOR_BYTES)) - descriptors;
  return Math.min(wanted, block / 4);
}

interface Geometry {
  block: number;
  blocks: number;
  first: number;
  groups: number;
  perGroup: number;
  descriptors: number;
  growth: number;
  reserved: number;
  isSpread: boolean;
}

/** Of all blocks that were given; where some are left away, in the share that it has of those that stay. */
function reservedOf(given: number, percent: number, left?: number): number {
  const all = Math.floor((given * percent) / 100);
  return left === undefined ? all : Math.floor((((100 * all) / given) * left) / 100);
}

const tableBlocks = (perGroup: number, block: number): number => Math.ceil((perGroup * INODE_BYTES) / block);

/** Whole blocks of inodes, and then a multiple of eight, for the bitmap. */
function inodesPerGroup(wanted: number, block: number): number {
  const inBlock = block / INODE_BYTES;
  const whole = Math.max(inBlock, Math.ceil(wanted / inBlock) * inBlock);
  return Math.max(8, Math.floor(Math.min(8 * block, whole) / 8) * 8);
}

/** Lays the groups out; a last one that could hold little more than its own tables is left away. */
function geometry(bytes: number, options: Ext4Options): Geometry {
  const usual = kindOf(bytes);
  const block = options.blockBytes ?? usual.block;
  const ratio = options.bytesPerInode ?? usual.ratio;
  const percent = options.reservePercent ?? 5;
  const first = block === 1024 ? 1 : 0;
  // The tool counts whole pages of the machine, and decides on inodes and reserve before it leaves a group away.
  const given = (Math.floor(bytes / 4096) * 4096) / block;
  const inodes = Math.min(MOST_32, Math.floor((given * block) / ratio));
  // A group has a bitmap of one block for its inodes: where more are wanted, it has fewer blocks.
  const most = 8 * block;
  let [blocks, size, reserved] = [given, most, reservedOf(given, percent)];
  for (;;) {
    const groups = Math.ceil((blocks - first) / size);
    const descriptors = Math.ceil((groups * DESCRIPTOR_BYTES) / block);
    const wish = growthBlocks({ block, first, size }, blocks, descriptors);
    // Where all descriptors would take three quarters of a group, each lies with its own groups, and does not grow.
    const isSpread = wish + descriptors > (size * 3) / 4;
    const growth = isSpread ? 0 : wish;
    const wanted = Math.ceil(inodes / groups);
    const perGroup = inodesPerGroup(wanted, block);
    const rest = (blocks - first) % size;
    const own = 2 + tableBlocks(perGroup, block) + (keepsCopy(groups - 1) ? 1 + descriptors + growth : 0);
    if (wanted > most && size >= 256) [blocks, size] = [given, size - 8];
    else if (rest > 0 && rest < own + 50 && groups > 1) {
      blocks -= rest;
      // Where it starts anew with smaller groups, the tool has the blocks again, and not the reserve.
      reserved = reservedOf(given, percent, blocks);
    } else return { block, blocks, first, groups, perGroup, descriptors, growth, reserved, isSpread };
  }
}

/** Blocks for the superblock and the descriptors, with all their copies. */
function headBlocks({ block, groups, descriptors, growth, isSpread }: Geometry): number {
  if (!isSpread) return copies(groups) * (1 + descriptors + growth);
  // In the first, the second and the last of the groups that a block of them tells of.
  const together = block / DESCRIPTOR_BYTES;
  const last = groups % together;
  return copies(groups) + 3 * Math.floor(groups / together) + Math.min(2, last);
}

/** What mke2fs makes of so many bytes, and what the kernel then shows of it. */
export function ext4Figures(bytes: number, options: Ext4Options = {}): Ext4Figures {
  const layout = geometry(bytes, options);
  const { block, blocks, first, groups, perGroup, growth, reserved } = layout;
  const journal = journalOf(blocks);
  const overhead = first + groups * (2 + tableBlocks(perGroup, block)) + headBlocks(layout) + journal;
  // The root folder, 16 KiB for lost files, the map of the growth, and one for a journal of more than four pieces.
  const lost = Math.max(1, Math.min(12, (16 * 1024) / block));
  const used = 1 + lost + (growth > 0 ? 1 : 0) + (journal > 4 * 32_768 ? 1 : 0);
  const held = Math.min(Math.floor(blocks / 50), 4096);
  return {
    ...{ blockBytes: block, blocks, reserved, journal, overhead, inodes: perGroup * groups },
    sizeBytes: (blocks - overhead) * block,
    availableBytes: Math.max(0, blocks - overhead - used - reserved - held) * block,
  };
}
