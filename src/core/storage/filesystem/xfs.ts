/** An XFS as mkfs.xfs 6.1 makes it with its defaults; in blocks of 4 KiB unless a name says otherwise. */
export interface XfsFigures {
  blocks: number;
  groups: number;
  groupBlocks: number;
  logBlocks: number;
  /** Share of the blocks, in percent, that inodes may take. */
  inodePercent: number;
  inodes: number;
  /** What `df` shows as size and as available, in bytes, of the empty file system. */
  sizeBytes: number;
  availableBytes: number;
}

const BLOCK = 4096;
const mib = (n: number): number => (n * 2 ** 20) / BLOCK;
const tib = (n: number): number => mib(n * 2 ** 20);
const MOST_GROUP = 2 ** 28 - 1;
const LEAST_GROUP = mib(16);

/** Stripes below a file system: bytes that lie on one member, and members that hold data. */
export interface Stripe {
  unitBytes: number;
  members: number;
  /** Given to mkfs.xfs by hand, which then takes them for every size; what a device tells counts from 1 GiB on. */
  isAsked?: boolean;
}
/** So small a file system has no stripes but those that are asked for. */
const LEAST_STRIPED = 2 ** 30;
interface Blocks {
  unit: number;
  width: number;
}

/** Blocks of a group: a quarter of the file system, and at most 1 TiB (calc_default_ag_geometry). */
function groupBlocks(blocks: number, striped: boolean): number {
  if (blocks >= tib(striped ? 32 : 4)) return MOST_GROUP;
  if (!striped) return Math.min(MOST_GROUP, Math.ceil(blocks / 4));
  const shift = blocks > mib(512 * 1024) ? 5 : blocks > mib(8 * 1024) ? 4 : 3;
  return Math.min(MOST_GROUP, Math.ceil(blocks / 2 ** shift));
}

/** 2 GiB, less what must stay free beside it. */
const MOST_LOG = 521_728;
const [MOST_LOG_UNIT, LOG_UNIT] = [256 * 1024, 32 * 1024];
const logBlocks = (blocks: number): number =>
  Math.min(MOST_LOG, Math.max(mib(64), Math.floor(blocks / 2048)));

/** Blocks of a tree over so many records, each block half full, as the kernel reserves it (xfs_btree_calc_size). */
function treeBlocks(records: number, leaf: number, node: number): number {
  let level = Math.ceil(records / leaf);
  let all = level;
  while (level > 1) {
    level = Math.ceil(level / node);
    all += level;
  }
  return all;
}

const INODES_IN_BLOCK = 8;
const INODES_IN_CHUNK = 64;

/** What a group keeps so that its trees of shared blocks and of free inodes can always grow. */
const reserveOf = (blocks: number): number =>
  treeBlocks(blocks, 168, 252) +
  treeBlocks(Math.floor((blocks * INODES_IN_BLOCK) / INODES_IN_CHUNK), 126, 252);

/** Set aside in each group, and its trees and heads; the heads are four sectors. */
const IN_EACH_GROUP = 11;
const ROOT_INODES = 8;
const POOL_FOR_EMERGENCIES = 8192;

/** Blocks that are neither log nor free for users in an empty file system. */
function held(blocks: number, groups: number, group: number, log: number, sectorBytes: number): number {
  const heads = (4 * sectorBytes) / BLOCK;
  const withLog = Math.floor(groups / 2);
  let all = Math.min(Math.floor(blocks / 20), POOL_FOR_EMERGENCIES) + ROOT_INODES;
  for (let g = 0; g < groups; g += 1) {
    const own = Math.min(group, blocks - g * group) - (g === withLog ? log : 0);
    all += reserveOf(own) + IN_EACH_GROUP + Math.ceil(heads);
  }
  return all;
}

/** Blocks of a group on stripes: whole units, and one unit less where all groups would begin on the same member. */
function onStripes(group: number, blocks: number, { unit, width }: Blocks): number {
  const up = Math.ceil(group / unit) * unit;
  const whole = up > MOST_GROUP ? Math.floor(group / unit) * unit : up;
  const isTogether = whole % width === 0 && width !== unit && blocks > whole;
  if (!isTogether) return whole;
  return whole - unit < LEAST_GROUP ? whole + unit : whole - unit;
}

/** Blocks of the log on stripes: whole units, of which one above 256 KiB counts as 32 KiB. */
function logOnStripes(log: number, { unit }: Blocks): number {
  const own = unit * BLOCK > MOST_LOG_UNIT ? LOG_UNIT / BLOCK : unit;
  const up = Math.ceil(log / own) * own;
  return up > MOST_LOG ? Math.floor(log / own) * own : up;
}

/** Why mkfs.xfs refuses so many bytes, in words; null where it makes a file system. */
export function xfsFault(bytes: number, stripe: Stripe | null = null): string | null {
  const { blocks, groupBlocks, logBlocks } = xfsFigures(bytes, 512, stripe);
  if (blocks < mib(300)) return "an XFS has 300 MiB or more";
  return logBlocks > groupBlocks - IN_EACH_GROUP
    ? "its log of 64 MiB does not fit into one of its groups, which stripes make smaller: it wants 513 MiB or more"
    : null;
}

/** What mkfs.xfs makes of so many bytes; on a device of stripes below it takes more groups, in whole units. */
export function xfsFigures(bytes: number, sectorBytes = 512, stripe: Stripe | null = null): XfsFigures {
  const all = Math.floor(bytes / BLOCK);
  const isStriped = stripe !== null && (stripe.isAsked || all * BLOCK >= LEAST_STRIPED);
  const own = isStriped && {
    unit: stripe.unitBytes / BLOCK,
    width: (stripe.unitBytes * stripe.members) / BLOCK,
  };
  const plain = groupBlocks(all, isStriped);
  const groupSize = own ? onStripes(plain, all, own) : plain;
  const groups = Math.ceil(all / groupSize);
  // A last group that is too small to be one is left away.
  const last = all - (groups - 1) * groupSize;
  const isDropped = groups > 1 && last < LEAST_GROUP;
  const blocks = isDropped ? all - last : all;
  const count = isDropped ? groups - 1 : groups;
  const log = own ? logOnStripes(logBlocks(blocks), own) : logBlocks(blocks);
  const inodePercent = blocks < tib(1) ? 25 : blocks < tib(50) ? 5 : 1;
  const chunks = Math.floor(Math.floor((blocks * inodePercent) / 100) / ROOT_INODES);
  return {
    ...{ blocks, groups: count, groupBlocks: groupSize, logBlocks: log, inodePercent },
    inodes: chunks * INODES_IN_CHUNK,
    sizeBytes: (blocks - log) * BLOCK,
    availableBytes: (blocks - log - held(blocks, count, groupSize, log, sectorBytes)) * BLOCK,
  };
}
