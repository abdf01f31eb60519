import { Bytes, type Span } from "../../binary";
import { peBytes, peMachine, removableLoader, type LoaderArch } from "./pe";
import { read, type Reading } from "./reader";
import { readSignature, type Signature } from "./signature";

export interface EfiProgram {
  path: string;
  /** What the program itself says; null when it is no EFI program. */
  arch: LoaderArch | null;
  /** Which architecture firmware expects under this name. */
  expected: LoaderArch | null;
  /** Why the firmware cannot read all of it; null where it can. */
  cutOff: string | null;
  /** Null where it is no EFI program, or its signature table cannot be read. */
  signature: Signature | null;
}

export interface FatVolume {
  offset: number;
  kind: "FAT12" | "FAT16" | "FAT32";
  label: string;
  sizeBytes: number;
  programs: EfiProgram[];
}

interface Layout {
  offset: number;
  kind: FatVolume["kind"];
  sectorBytes: number;
  clusterBytes: number;
  fatOffset: number;
  rootOffset: number;
  rootBytes: number;
  rootCluster: number;
  dataOffset: number;
  sizeBytes: number;
  label: string;
}

/** The BIOS parameter block (ECMA-107, with FAT32 as UEFI 2.10, 13.3, describes it); null when these are not its numbers. */
export function parseBootSector(b: Bytes, offset: number): Layout | null {
  const sectorBytes = b.u16(11);
  const perCluster = b.u8(13);
  const [reserved, fats, rootEntries] = [b.u16(14), b.u8(16), b.u16(17)];
  const sectors = b.u16(19) || b.u32(32);
  const fatSectors = b.u16(22) || b.u32(36);
  const isPower = (n: number): boolean => n > 0 && (n & (n - 1)) === 0;
  if (b.u16(510) !== 0xaa55 || ![512, 1024, 2048, 4096].includes(sectorBytes) || !isPower(perCluster))
    return null;
  if (reserved === 0 || fats === 0 || fats > 4 || sectors === 0 || fatSectors === 0) return null;
  const rootSectors = Math.ceil((rootEntries * 32) / sectorBytes);
  const dataSector = reserved + fats * fatSectors + rootSectors;
  if (dataSector >= sectors) return null;
  const clusters = Math.floor((sectors - dataSector) / perCluster);
  const kind = clusters < 4085 ? "FAT12" : clusters < 65_525 ? "FAT16" : "FAT32";
  return {
    offset,
    kind,
    sectorBytes,
    clusterBytes: perCluster * sectorBytes,
    fatOffset: offset + reserved * sectorBytes,
    rootOffset: offset + (reserved + fats * fatSectors) * sectorBytes,
    rootBytes: rootEntries * 32,
    rootCluster: kind === "FAT32" ? b.u32(44) : 0,
    dataOffset: offset + dataSector * sectorBytes,
    sizeBytes: sectors * sectorBytes,
    label: b.text(kind === "FAT32" ? 71 : 43, 11),
  };
}

interface Entry {
  name: string;
  isFolder: boolean;
  cluster: number;
  sizeBytes: number;
}

/** Folders are followed this many clusters; the loader stands near the front of any real one. */
const MOST_CLUSTERS = 64;

/** A FAT volume at an offset of a file of `size` bytes, with the EFI programs in its EFI/BOOT folder; null when none stands there. */
export function* readFat(offset: number, size: number): Reading<FatVolume | null> {
  const layout = parseBootSector(yield* read(offset, 512), offset);
  if (!layout) return null;
  const { kind, label, sizeBytes } = layout;
  const volume: FatVolume = { offset, kind, label, sizeBytes, programs: [] };
  const root =
    layout.rootCluster > 0
      ? yield* folder(layout, layout.rootCluster)
      : yield* entriesAt(layout.rootOffset, layout.rootBytes);
  const efi = root.find((e) => e.isFolder && e.name.toUpperCase() === "EFI");
  const boot = efi
    ? (yield* folder(layout, efi.cluster)).find((e) => e.isFolder && e.name.toUpperCase() === "BOOT")
    : undefined;
  if (!efi || !boot) return volume;
  for (const entry of (yield* folder(layout, boot.cluster))
    .filter((e) => !e.isFolder && /\.efi$/i.test(e.name))
    .slice(0, 12)) {
    const path = `${efi.name}/${boot.name}/${entry.name}`;
    const head = yield* read(clusterOffset(layout, entry.cluster), 2048);
    const signature = yield* readSignature(head, (span) => filePart(layout, entry.cluster, span));
    volume.programs.push({
      ...{ path, arch: peMachine(head), expected: removableLoader(path), signature },
      cutOff: yield* cutOff(layout, entry, head, size),
    });
  }
  return volume;
}

/** Whether all that a loader is made of stands in the file: its clusters, and the sections that its own header names. */
function* cutOff(layout: Layout, entry: Entry, head: Bytes, size: number): Reading<string | null> {
  const { sizeBytes, cluster } = entry;
  const needs = Math.ceil(sizeBytes / layout.clusterBytes);
  const clusters = yield* chain(layout, cluster, Math.min(needs, MOST_FILE_CLUSTERS));
  if (clusters.length < Math.min(needs, MOST_FILE_CLUSTERS))
    return `its cluster chain ends after ${clusters.length} of ${needs}`;
  const inLast = sizeBytes - (needs - 1) * layout.clusterBytes;
  const beyond = clusters.some(
    (c, i) => clusterOffset(layout, c) + (i === needs - 1 ? inLast : layout.clusterBytes) > size,
  );
  if (beyond) return "a part of it is beyond the end of the file";
  const wants = peBytes(head);
  return wants > sizeBytes ? `its header declares ${wants} bytes, and it has ${sizeBytes}` : null;
}

const clusterOffset = (l: Layout, cluster: number): number => l.dataOffset + (cluster - 2) * l.clusterBytes;

function* folder(layout: Layout, first: number): Reading<Entry[]> {
  const entries: Entry[] = [];
  for (const cluster of new Set(yield* chain(layout, first, MOST_CLUSTERS)))
    entries.push(...(yield* entriesAt(clusterOffset(layout, cluster), layout.clusterBytes)));
  return entries;
}

/** No loader lies over more clusters than this. */
const MOST_FILE_CLUSTERS = 20_000;
const FAT_BLOCK = 4096;

/** A part of a file, gathered from the clusters that it lies in; shorter where the chain ends. */
function* filePart(layout: Layout, first: number, { offset, length }: Span): Reading<Bytes> {
  const { clusterBytes } = layout;
  const from = Math.floor(offset / clusterBytes);
  const to = Math.floor((offset + length - 1) / clusterBytes);
  const clusters = to < MOST_FILE_CLUSTERS ? yield* chain(layout, first, to + 1) : [];
  const parts: Uint8Array[] = [];
  for (const cluster of clusters.slice(from))
    parts.push((yield* read(clusterOffset(layout, cluster), clusterBytes)).raw);
  const joined = new Uint8Array(parts.reduce((sum, p) => sum + p.length, 0));
  parts.reduce((at, p) => (joined.set(p, at), at + p.length), 0);
  return new Bytes(joined.subarray(offset - from * clusterBytes).subarray(0, length));
}

/** The first clusters of a chain. The table is read in blocks: a file lies mostly in a row. */
function* chain(layout: Layout, first: number, count: number): Reading<number[]> {
  const blocks = new Map<number, Bytes>();
  const bits = { FAT12: 12, FAT16: 16, FAT32: 32 }[layout.kind];
  const clusters: number[] = [];
  for (let cluster = first; cluster >= 2 && clusters.length < count;) {
    clusters.push(cluster);
    const at = Math.floor((cluster * bits) / 8);
    const block = Math.floor(at / FAT_BLOCK);
    // Four bytes more than the block, for an entry that lies across its end.
    const held = blocks.get(block) ?? (yield* read(layout.fatOffset + block * FAT_BLOCK, FAT_BLOCK + 4));
    blocks.set(block, held);
    cluster = entryIn(layout.kind, held, at - block * FAT_BLOCK, cluster);
  }
  return clusters;
}

/** The entry of a cluster in the table; 0 at the end of its chain. */
function entryIn(kind: FatVolume["kind"], table: Bytes, at: number, cluster: number): number {
  if (kind === "FAT32") {
    const next = table.u32(at) & 0x0fffffff;
    return next >= 0x0ffffff8 ? 0 : next;
  }
  if (kind === "FAT16") return table.u16(at) >= 0xfff8 ? 0 : table.u16(at);
  const pair = table.u16(at);
  const next = cluster % 2 === 0 ? pair & 0xfff : pair >> 4;
  return next >= 0xff8 ? 0 : next;
}

/** Directory entries with their long names; a long name whose parts do not fit falls back to the short one. */
function* entriesAt(offset: number, length: number): Reading<Entry[]> {
  const b = yield* read(offset, Math.min(length, 65_536));
  const entries: Entry[] = [];
  let long = "";
  for (let at = 0; b.has(at, 32) && b.u8(at) !== 0; at += 32) {
    const attributes = b.u8(at + 11);
    if (b.u8(at) === 0xe5) long = "";
    else if (attributes === 0x0f) long = longPart(b, at) + ((b.u8(at) & 0x40) === 0 ? long : "");
    else {
      // Two bits say that a short name's parts are meant in lower case; a long name is not written then.
      const cases = b.u8(at + 12);
      const part = (from: number, length: number, lower: number): string => {
        const text = b.text(from, length).trim();
        return cases & lower ? text.toLowerCase() : text;
      };
      const short = [part(at, 8, 0x08), part(at + 8, 3, 0x10)].filter(Boolean).join(".");
      const cluster = (b.u16(at + 20) << 16) | b.u16(at + 26);
      if ((attributes & 0x08) === 0 && !short.startsWith("."))
        entries.push({
          ...{ name: long || short, isFolder: (attributes & 0x10) !== 0, cluster },
          sizeBytes: b.u32(at + 28),
        });
      long = "";
    }
  }
  return entries;
}

/** Thirteen UTF-16 units of a long name, at their three places. */
function longPart(b: Bytes, at: number): string {
  const units = [1, 3, 5, 7, 9, 14, 16, 18, 20, 22, 24, 28, 30].map((i) => b.u16(at + i));
  const end = units.findIndex((u) => u === 0 || u === 0xffff);
  return String.fromCharCode(...(end < 0 ? units : units.slice(0, end))).replace(
    /[\p{Cc}\p{Cf}\p{Cs}\p{Zl}\p{Zp}]/gu,
    "·",
  );
}
