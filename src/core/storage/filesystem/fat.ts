/** A FAT file system as mkfs.fat 4.2 makes it; in sectors unless a name says otherwise. */
export interface FatFigures {
  bits: 12 | 16 | 32;
  sectorsPerCluster: number;
  reserved: number;
  rootEntries: number;
  sectors: number;
  fatSectors: number;
  clusters: number;
  /** Bytes for files; in FAT32 the root folder takes one cluster of them. */
  usableBytes: number;
}

export interface FatOptions {
  sectorBytes?: number;
  /** Null: as the tool chooses. */
  bits?: 16 | 32 | null;
  sectorsPerCluster?: number | null;
}

const MIB = 2 ** 20;
const ROOT_ENTRIES = 512;
/** Of a folder. */
const ENTRY_BYTES = 32;
const MOST_CLUSTERS = { 12: 4084, 16: 65_524, 32: 268_435_446 } as const;
const LEAST_CLUSTERS = { 12: 1, 16: 4087, 32: 65_529 } as const;
/** Small ones are not aligned to clusters. */
const LEAST_ALIGNED_SECTORS = 8192;

const up = (value: number, unit: number): number => Math.ceil(value / unit) * unit;

/** Sectors of a track of the geometry that is made up; the file system ends with a whole one. */
const trackOf = (sectors: number): number => (sectors > 524_288 ? 63 : sectors > 4096 ? 32 : 16);

/** Sectors of a cluster of FAT32 by its size in MiB, rounded up, and counted as if sectors were of 512 bytes. */
function firstCluster(bits: 16 | 32, sectors: number): number {
  if (bits === 16) return 4;
  const steps: [above: number, cluster: number][] = [
    [32_768, 64],
    [16_384, 32],
    [8192, 16],
    [260, 8],
  ];
  return steps.find(([above]) => Math.ceil(sectors / 2048) > above)?.[1] ?? 1;
}

/** Bytes of an entry of a FAT. */
const ENTRY = { 12: 1.5, 16: 2, 32: 4 } as const;

function tables(bits: 12 | 16 | 32, sectors: number, sectorBytes: number, cluster: number): FatFigures {
  const isAligned = sectors > LEAST_ALIGNED_SECTORS;
  const align = (n: number): number => (isAligned ? up(n, cluster) : n);
  const reserved = align(bits === 32 ? 32 : 1);
  const root = bits === 32 ? 0 : align((ROOT_ENTRIES * ENTRY_BYTES) / sectorBytes);
  const data = sectors - reserved - root;
  const entry = ENTRY[bits];
  const guess = Math.floor((data * sectorBytes + 4 * entry) / (cluster * sectorBytes + 2 * entry));
  const fatSectors = align(Math.ceil(Math.ceil((guess + 2) * entry) / sectorBytes));
  const clusters = Math.floor((data - 2 * fatSectors) / cluster);
  return {
    rootEntries: (root * sectorBytes) / ENTRY_BYTES,
    ...{ bits, sectors, reserved, fatSectors, clusters, sectorsPerCluster: cluster },
    usableBytes: (clusters - (bits === 32 ? 1 : 0)) * cluster * sectorBytes,
  };
}

const fits = ({ bits, clusters }: FatFigures, isAsked: boolean): boolean =>
  clusters <= MOST_CLUSTERS[bits] && (isAsked || clusters >= LEAST_CLUSTERS[bits]);

/**
 * What mkfs.fat makes of so many bytes: FAT32 from 512 MiB on unless it is told otherwise; null where no cluster fits, as
 * where a FAT of 32 bits would have fewer clusters than the standard asks.
 */
export function fatFigures(
  bytes: number,
  { sectorBytes = 512, bits = null, sectorsPerCluster = null }: FatOptions = {},
): FatFigures | null {
  const raw = Math.floor(bytes / sectorBytes);
  const track = trackOf(raw);
  const sectors = Math.floor(raw / track) * track;
  const width = bits ?? (bytes >= 512 * MIB ? 32 : 16);
  const first = sectorsPerCluster ?? firstCluster(width, raw);
  for (let cluster = first; cluster <= (sectorsPerCluster ?? 128); cluster *= 2) {
    const widths = width === 32 ? ([32] as const) : bits === null ? ([16, 12] as const) : ([16] as const);
    const found = widths
      .map((w) => tables(w, sectors, sectorBytes, cluster))
      .find((f) => fits(f, bits === 32));
    if (found) return found;
  }
  return null;
}

/** A FAT of 32 bits with fewer clusters than this is one of 16 bits to strict firmware. */
export const STRICT_FAT32_CLUSTERS = 65_525;
