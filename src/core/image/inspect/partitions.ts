import CRC32 from "crc-32";
import type { Bytes } from "../../binary";
import { byteCount, bytesOf, sectorCount, sectorsIn, type ByteCount, type SectorCount } from "../../units";
import { read, type Reading } from "./reader";

export interface Partition {
  number: number;
  /** From the start of the file. */
  offset: ByteCount;
  length: ByteCount;
  /** Two hexadecimal digits for MBR, a GUID in upper case for GPT. */
  type: string;
  active: boolean;
  table: "MBR" | "GPT";
}

export interface Mbr {
  signed: boolean;
  /** Executable code in the first 440 bytes. */
  code: boolean;
  partitions: Partition[];
  protective: boolean;
}

/** A master boot record counts in sectors of this size. */
const MBR_SECTOR = byteCount(512);

/**
 * "ER" begins the driver map of another computer family, which partition programs put in front of an otherwise empty
 * sector; its bytes are also instructions that do no harm, and hybrid images have their code behind them.
 */
function holdsCode(b: Bytes): boolean {
  const from = b.starts(0, "ER") ? DRIVER_MAP : 0;
  return b.raw.subarray(from, 440).reduce((n, byte) => n + (byte === 0 ? 0 : 1), 0) > 32;
}

/** Bytes of a driver map with the two entries that such images have at most. */
const DRIVER_MAP = 34;

/** Whether the place of the four entries holds a table: each is empty, or begins with one of two marks and lies behind the first sector. */
const isTable = (b: Bytes): boolean =>
  [0, 1, 2, 3].every((i) => {
    const at = 446 + 16 * i;
    return (b.u8(at) & 0x7f) === 0 && (b.u32(at + 12) === 0 || b.u32(at + 8) > 0);
  });

/**
 * The first sector as a master boot record. Extended partitions are named, not followed. Where it is the boot sector of a file
 * system as well, its code may reach over the place of the table: that is one only if all of it can be.
 */
export function parseMbr(b: Bytes, isFileSystem = false): Mbr {
  const signed = b.u16(510) === 0xaa55;
  if (!signed) return { signed, code: false, partitions: [], protective: false };
  if (isFileSystem && !isTable(b)) return { signed, code: holdsCode(b), partitions: [], protective: false };
  const partitions = [0, 1, 2, 3].flatMap((i): Partition[] => {
    const at = 446 + 16 * i;
    const [type, sectors] = [b.u8(at + 4), sectorCount(b.u32(at + 12))];
    if (sectors === 0 || (b.u8(at) & 0x7f) !== 0) return [];
    return [
      {
        number: i + 1,
        offset: bytesOf(sectorCount(b.u32(at + 8)), MBR_SECTOR),
        length: bytesOf(sectors, MBR_SECTOR),
        type: type.toString(16).padStart(2, "0"),
        active: b.u8(at) === 0x80,
        table: "MBR",
      },
    ];
  });
  return { signed, code: holdsCode(b), partitions, protective: partitions.some((p) => p.type === "ee") };
}

export interface GptHeader {
  at: number;
  sound: boolean;
  /** Why it is not, in words. */
  fault: string | null;
  firstUsable: SectorCount | null;
  lastUsable: SectorCount | null;
  /** Where the other copy stands. */
  other: SectorCount | null;
  entriesLba: SectorCount | null;
  entryCount: number;
  entryBytes: number;
  entriesCrc: number;
}

export interface Gpt {
  sectorBytes: 512 | 2048 | 4096;
  primary: GptHeader | null;
  backup: GptHeader | null;
  partitions: Partition[];
}

const MOST_ENTRIES = 256;

/** A logical block address; null when it is larger than can be counted exactly. */
function lba(b: Bytes, at: number): SectorCount | null {
  const read = b.u64(at);
  return read === null ? null : sectorCount(read);
}

/** A GPT header (UEFI specification, 5.3.2): signature, its own CRC, plausible numbers. */
export function parseGptHeader(b: Bytes, at: number): GptHeader | null {
  if (!b.starts(0, "EFI PART")) return null;
  const length = b.u32(12);
  const header: GptHeader = {
    at,
    sound: true,
    fault: null,
    other: lba(b, 32),
    firstUsable: lba(b, 40),
    lastUsable: lba(b, 48),
    entriesLba: lba(b, 72),
    entryCount: b.u32(80),
    entryBytes: b.u32(84),
    entriesCrc: b.u32(88),
  };
  const wrong = (fault: string): GptHeader => ({ ...header, sound: false, fault });
  if (length < 92 || length > b.length) return wrong(`header length ${length}`);
  const copy = b.raw.slice(0, length);
  copy.fill(0, 16, 20);
  if (CRC32.buf(copy) >>> 0 !== b.u32(16)) return wrong("its checksum is wrong");
  if (header.entryBytes < 128 || header.entryBytes > 4096)
    return wrong(`entries of ${header.entryBytes} bytes`);
  if (header.entryCount > 100_000) return wrong(`${header.entryCount} entries`);
  return header;
}

/** Both copies of a GPT and the partitions of the sound one. Larger sectors are tried where 512 gives none. */
export function* readGpt(size: number): Reading<Gpt | null> {
  for (const sectorBytes of [512, 2048, 4096] as const) {
    const head = yield* read(sectorBytes, sectorBytes);
    const primary = parseGptHeader(head, sectorBytes);
    const sector = byteCount(sectorBytes);
    const last = sectorCount(sectorsIn(byteCount(size), sector) - 1);
    const elsewhere = bytesOf(primary?.sound && primary.other !== null ? primary.other : last, sector);
    const backup = parseGptHeader(yield* read(elsewhere, sectorBytes), elsewhere);
    if (!primary && !backup) continue;
    let partitions = primary?.sound ? yield* entriesOf(primary, sector) : [];
    // As firmware does: entries whose sum does not fit are as good as a header that does not.
    if (!primary?.sound && backup?.sound) partitions = yield* entriesOf(backup, sector);
    return { sectorBytes, primary, backup, partitions: primary?.sound || backup?.sound ? partitions : [] };
  }
  return null;
}

function* entriesOf(header: GptHeader, sector: ByteCount): Reading<Partition[]> {
  if (header.entriesLba === null) return [];
  const count = Math.min(header.entryCount, MOST_ENTRIES);
  const b = yield* read(bytesOf(header.entriesLba, sector), count * header.entryBytes);
  if (
    count === header.entryCount &&
    b.length === count * header.entryBytes &&
    CRC32.buf(b.raw) >>> 0 !== header.entriesCrc
  ) {
    header.sound = false;
    header.fault = "the checksum of its entries is wrong";
  }
  return Array.from({ length: count }, (_, i) => i).flatMap((i): Partition[] => {
    const at = i * header.entryBytes;
    const [first, last] = [lba(b, at + 32), lba(b, at + 40)];
    const type = guid(b, at);
    if (first === null || last === null || last < first || /^[0-]+$/.test(type)) return [];
    return [
      {
        number: i + 1,
        offset: bytesOf(first, sector),
        length: bytesOf(sectorCount(last - first + 1), sector),
        type,
        active: false,
        table: "GPT",
      },
    ];
  });
}

/** A GUID as it is written: the first three groups are little-endian. */
function guid(b: Bytes, at: number): string {
  const hex = (from: number, to: number, swap: boolean): string => {
    const bytes = Array.from({ length: to - from }, (_, i) =>
      b
        .u8(at + from + i)
        .toString(16)
        .padStart(2, "0"),
    );
    return (swap ? bytes.reverse() : bytes).join("");
  };
  return [hex(0, 4, true), hex(4, 6, true), hex(6, 8, true), hex(8, 10, false), hex(10, 16, false)]
    .join("-")
    .toUpperCase();
}

export const EFI_SYSTEM = "C12A7328-F81F-11D2-BA4B-00A0C93EC93B";
export const BASIC_DATA = "EBD0A0A2-B9E5-4433-87C0-68B6B72699C7";

/** Partitions in which firmware looks for a loader: EFI system partitions, and any that hold FAT. */
export const mayHoldFat = (p: Partition): boolean =>
  p.table === "GPT"
    ? p.type === EFI_SYSTEM || p.type === BASIC_DATA
    : ["ef", "01", "04", "06", "0b", "0c", "0e"].includes(p.type);
