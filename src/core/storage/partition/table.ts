/** Programs that write partition tables; they differ in where the last partition ends. */
export type TableTool = "sgdisk" | "sfdisk" | "parted";
export type TableLabel = "gpt" | "dos";

/** What a partition is for, with the types that the tables know it by. */
export const PARTITION_TYPES = {
  efi: { guid: "C12A7328-F81F-11D2-BA4B-00A0C93EC93B", sgdisk: "ef00", sfdisk: "U", dos: "ef" },
  "bios boot": { guid: "21686148-6449-6E6F-744E-656564454649", sgdisk: "ef02", sfdisk: "", dos: "" },
  linux: { guid: "0FC63DAF-8483-4772-8E79-3D69D8477DE4", sgdisk: "8300", sfdisk: "L", dos: "83" },
  swap: { guid: "0657FD6D-A4AB-43C4-84E5-0933C84B4F4F", sgdisk: "8200", sfdisk: "S", dos: "82" },
  lvm: { guid: "E6D6D379-F507-44C2-A23C-238F2A3DF928", sgdisk: "8e00", sfdisk: "V", dos: "8e" },
  raid: { guid: "A19D880F-05FC-4D3B-A006-743F0F84911E", sgdisk: "fd00", sfdisk: "R", dos: "fd" },
  zfs: { guid: "6A898CC3-1DD2-11B2-99A6-080020736631", sgdisk: "bf01", sfdisk: "", dos: "bf" },
} as const;
export type PartitionUse = keyof typeof PARTITION_TYPES;

export interface Disk {
  bytes: number;
  sectorBytes: number;
}

/** A partition that is wanted; null takes what is left. */
export interface WantedPartition {
  use: PartitionUse;
  bytes: number | null;
}

export interface Partition {
  use: PartitionUse;
  start: number;
  sectors: number;
}

export interface Table {
  label: TableLabel;
  /** First and last sector that the table leaves for partitions. */
  first: number;
  last: number;
  partitions: Partition[];
  /** Why the tool refuses it, or makes less of it than the disk has. */
  fault: { kind: "refused" | "cut short"; words: string } | null;
}

const ALIGNMENT = 2 ** 20;
/** A table of 128 entries of 128 bytes, with its header; the copy at the end is as long. */
const ENTRIES = 128 * 128;
/** An MBR keeps start and length in 32 bits. */
const MBR_SECTORS = 2 ** 32;

const down = (value: number, unit: number): number => Math.floor(value / unit) * unit;
const up = (value: number, unit: number): number => Math.ceil(value / unit) * unit;

/** First and last sector for partitions in a GPT, as the standard leaves them. */
export function gptBounds({ bytes, sectorBytes }: Disk): { first: number; last: number } {
  const table = Math.ceil(ENTRIES / sectorBytes);
  return { first: 2 + table, last: Math.floor(bytes / sectorBytes) - 2 - table };
}

/** Where a tool is told to begin the first partition; of use to parted alone, which takes a percentage for a range. */
export type Beginning = "0%" | "1MiB";

/**
 * Whether parted finds a whole MiB at both ends of a disk: it moves an end that is given in percent by half of one, which on a
 * small disk is less than a MiB, and then aligns nothing (ped_unit_parse_custom).
 */
function isRoomy(all: number, end: number, grain: number, from: Beginning): boolean {
  const radius = Math.ceil(Math.floor(all / 100) / 2) - 1;
  return (from === "1MiB" || grain <= radius) && all - down(end, grain) <= radius;
}

/** First sector, and where the rest of a disk ends, exclusive: some use every sector, and others whole MiB. */
function edgesOf(tool: TableTool, label: TableLabel, disk: Disk, grain: number, from: Beginning) {
  const { sectorBytes, bytes } = disk;
  const all = Math.floor(bytes / sectorBytes);
  const { first, last } = gptBounds(disk);
  const end = label === "gpt" ? last + 1 : tool === "sfdisk" ? Math.min(all, MBR_SECTORS) : all;
  if (tool === "parted" && !isRoomy(all, end, grain, from))
    return { start: from === "1MiB" ? grain : label === "gpt" ? first : 1, end };
  const isExact = tool === "sgdisk" || (tool === "sfdisk" && label === "dos");
  return { start: grain, end: isExact ? end : down(end, grain) };
}

/** A wanted size on its way into a table. */
interface Wish {
  tool: TableTool;
  label: TableLabel;
  start: number;
  bytes: number;
  sectorBytes: number;
  grain: number;
}

/**
 * Sectors of a wanted size: sgdisk and sfdisk cut to whole sectors, and sfdisk ends what is no smaller than a MiB at the nearest
 * whole one, of which a GPT takes the lower from the middle, and an MBR the higher (fdisk_align_lba of its last sector, or of the
 * one behind it).
 */
function sectorsOf({ tool, label, start, bytes, sectorBytes, grain }: Wish): number {
  if (tool === "parted") return Math.ceil(bytes / sectorBytes);
  const sectors = Math.floor(bytes / sectorBytes);
  if (tool === "sgdisk" || sectors < grain) return sectors;
  const end = start + sectors + grain / 2 - (label === "gpt" ? 1 : 0);
  return down(end, grain) - start;
}

/** What a tool makes of wanted partitions on an empty disk, one behind the other. */
export function layOut(
  tool: TableTool,
  label: TableLabel,
  disk: Disk,
  wanted: readonly WantedPartition[],
  from: Beginning = "1MiB",
): Table {
  const grain = Math.max(1, ALIGNMENT / disk.sectorBytes);
  const { sectorBytes } = disk;
  const bounds = gptBounds(disk);
  const { start, end } = edgesOf(tool, label, disk, grain, from);
  const partitions: Partition[] = [];
  let at = start;
  for (const { use, bytes } of wanted) {
    const sectors =
      bytes === null ? end - at : sectorsOf({ tool, label, start: at, bytes, sectorBytes, grain });
    partitions.push({ use, start: at, sectors });
    at = up(at + sectors, grain);
  }
  return {
    ...{ label, partitions },
    first: label === "gpt" ? (tool === "sfdisk" ? grain : bounds.first) : grain,
    last: label === "gpt" ? bounds.last : Math.floor(disk.bytes / disk.sectorBytes) - 1,
    fault: faultOf(tool, label, disk, partitions, end),
  };
}

function faultOf(
  tool: TableTool,
  label: TableLabel,
  disk: Disk,
  partitions: readonly Partition[],
  end: number,
): Table["fault"] {
  const last = partitions.at(-1);
  if (partitions.some((p) => p.sectors <= 0) || (last && last.start + last.sectors > end))
    return { kind: "refused", words: "the partitions are longer than the disk" };
  if (label === "gpt" || !last) return null;
  const long = partitions.find((p) => p.sectors >= MBR_SECTORS);
  if (long && tool !== "sfdisk")
    return {
      kind: "refused",
      words: `partition length of ${long.sectors} sectors exceeds the msdos-partition-table-imposed maximum of ${MBR_SECTORS - 1}`,
    };
  const lost = Math.floor(disk.bytes / disk.sectorBytes) - MBR_SECTORS;
  return lost > 0 && tool === "sfdisk"
    ? { kind: "cut short", words: `an MBR reaches ${MBR_SECTORS} sectors; ${lost} behind them stay unused` }
    : null;
}
