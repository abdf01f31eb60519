/** Levels of md that hold data. */
export const MD_LEVELS = [0, 1, 4, 5, 6, 10] as const;
export type MdLevel = (typeof MD_LEVELS)[number];
export type MdMetadata = "0.90" | "1.0" | "1.1" | "1.2";
/** Where the copies of RAID10 stand: beside each other, far apart, or on the next device. */
export type MdLayout = "near" | "far" | "offset";

export interface MdShape {
  level: MdLevel;
  members: number;
  /** Of the smallest member; the others are used to its size. */
  memberBytes: number;
  metadata: MdMetadata;
  /** Null: as the tool chooses. */
  chunkKib: number | null;
  /** Of RAID10. */
  layout: MdLayout;
  copies: number;
}

/** All sizes in sectors of 512 bytes, as the tool and the kernel count them. */
export interface MdFigures {
  dataOffset: number;
  /** What of a member can be used, and what is. */
  available: number;
  used: number;
  chunkBytes: number;
  arrayBytes: number;
  optimalIoBytes: number;
}

const SECTOR = 512;
const MIB_SECTORS = 2048;
const KIB_SECTORS = 2;
const down = (value: number, unit: number): number => Math.floor(value / unit) * unit;

/** Room kept for a bitmap: none on tiny devices, 4 KiB, 64 KiB above 8 GiB, 128 KiB from 200 GiB. */
function bitmapRoom(sectors: number): number {
  if (sectors < 128) return 0;
  if (sectors - 128 >= 200 * 2 ** 21) return 128 * KIB_SECTORS;
  return sectors - 8 > 8 * 2 ** 21 ? 64 * KIB_SECTORS : 4 * KIB_SECTORS;
}

/**
 * Where data begin: behind the superblock and the bitmap with headroom for reshaping, a thousandth up to 128 MiB, and no less
 * than two chunks (validate_geometry1 of mdadm 4.2).
 */
function dataOffset(sectors: number, metadata: MdMetadata, chunk: number): number {
  if (metadata === "0.90" || metadata === "1.0") return 0;
  let headroom = 128 * MIB_SECTORS;
  while (headroom * 1024 > sectors && (chunk === 0 || headroom > 2 * chunk)) headroom /= 2;
  return Math.ceil((24 + bitmapRoom(sectors) + headroom) / MIB_SECTORS) * MIB_SECTORS;
}

/** Members of more than this are given a bitmap at once. */
const BITMAP_ABOVE = 100 * 2 ** 21;
/** Of a bitmap: bytes of its head, and sectors that one bit stands for. */
const [BITMAP_HEAD, BITMAP_CHUNK] = [256, 64 * MIB_SECTORS];

/** Sectors of a bitmap over so many, in whole pages (add_internal_bitmap1). */
function bitmapSectors(over: number): number {
  const bits = Math.floor(over / BITMAP_CHUNK) + 1;
  return Math.ceil((Math.ceil(bits / 8) + BITMAP_HEAD) / 4096) * 8;
}

/**
 * What is left of a member for data, and what is used of that in whole chunks (avail of mdadm 4.2). With metadata 1.0 all stands
 * at the end: the superblock, the list of bad blocks, and the bitmap. Room for that is left when the size is chosen; a bitmap
 * that is made then takes no more than it needs, and the rest counts as left.
 */
function leftOf(sectors: number, shape: MdShape, offset: number, round: number) {
  const { metadata, level } = shape;
  if (metadata !== "1.0") {
    const available = metadata === "0.90" ? down(sectors, 128) - 128 : sectors - offset;
    return { available, used: down(available, round) };
  }
  const before = down(sectors, 8) - 16 - 8;
  if (level === 0) return { available: before, used: down(before, round) };
  const used = down(before - bitmapRoom(sectors), round);
  // In RAID10 one bit stands for a piece of the array, not of a member.
  const bits = level === 10 ? ringSectors(shape, used, round) : used;
  const bitmap = used > BITMAP_ABOVE ? bitmapSectors(bits) : bitmapRoom(sectors);
  return { available: before - bitmap, used };
}

/** RAID1 has no chunks, and rounds to 64 KiB; the others take 512 KiB unless they are told otherwise. */
const ROUND_OF_ONE = 64 * KIB_SECTORS;
const DEFAULT_CHUNK_KIB = 512;

/** Members whose data count: all of them but the parity, or a share of RAID10. */
const dataMembers = ({ level, members, copies }: MdShape): number =>
  level === 1 ? 1 : level === 10 ? members / copies : members - (level === 6 ? 2 : level === 0 ? 0 : 1);

/** Sectors of RAID10, rounded in whole chunks as the kernel does it (raid10_size). */
function ringSectors({ members, copies, layout }: MdShape, used: number, chunk: number): number {
  const far = layout === "near" ? 1 : copies;
  const near = layout === "near" ? copies : 1;
  const stripes = Math.floor(Math.floor(used / chunk) / far);
  return Math.floor((stripes * members) / near) * chunk;
}

/** Members that a stripe of RAID10 passes: those of one copy, or all of them where the copies do not come out even. */
export function ringWidth({
  members,
  copies,
  layout,
}: Pick<MdShape, "members" | "copies" | "layout">): number {
  const near = layout === "near" ? copies : 1;
  return members % near === 0 ? members / near : members;
}

/** Metadata 0.90 count the size of a member in 32 bits of KiB. */
const MOST_OLD = 2 ** 42;

/** Why an array cannot be made, in words; null where it can. */
export function mdFault(shape: MdShape): string | null {
  const { level, members, memberBytes, copies, chunkKib, metadata } = shape;
  const least = { 0: 2, 1: 2, 4: 2, 5: 2, 6: 4, 10: 2 }[level];
  if (members < least) return `RAID${level} has ${least} members or more`;
  if (!Number.isFinite(memberBytes) || memberBytes < 4 * 2 ** 20) return "a member is smaller than 4 MiB";
  if (metadata === "0.90" && level === 0) return "metadata 0.90 does not record the layout of a RAID 0";
  if (metadata === "0.90" && memberBytes > MOST_OLD) return "metadata 0.90 counts members up to 4 TiB";
  if (memberBytes > 2 ** 53 / 64) return "a member is too large to be counted exactly: check its size";
  if (level === 10 && (copies < 2 || copies > members))
    return "RAID10 keeps two copies, up to one on each member";
  const isPower = chunkKib === null || (chunkKib >= 4 && Number.isInteger(Math.log2(chunkKib)));
  if (!isPower) return "a chunk is a power of two, 4 KiB or more";
  return mdFigures(shape).used > 0
    ? null
    : "a member is too small for its superblock, two chunks of headroom, and data";
}

/** What mdadm 4.2 makes of members of one size. */
export function mdFigures(shape: MdShape): MdFigures {
  const { level, memberBytes, metadata, chunkKib } = shape;
  const sectors = Math.floor(memberBytes / SECTOR);
  const chunk = level === 1 ? 0 : (chunkKib ?? DEFAULT_CHUNK_KIB) * KIB_SECTORS;
  const round = level === 1 ? ROUND_OF_ONE : chunk;
  const offset = dataOffset(sectors, metadata, chunk);
  const { available, used } = leftOf(sectors, shape, offset, round);
  const array =
    level === 10 ? ringSectors(shape, used, chunk) : level === 1 ? used : dataMembers(shape) * used;
  const wide = level === 10 ? ringWidth(shape) : dataMembers(shape);
  return {
    ...{ dataOffset: offset, available, used, chunkBytes: chunk * SECTOR },
    arrayBytes: array * SECTOR,
    optimalIoBytes: level === 1 ? 0 : wide * chunk * SECTOR,
  };
}
