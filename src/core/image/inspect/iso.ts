import type { Bytes } from "../../binary";
import { read, type Reading } from "./reader";

export const SECTOR = 2048;
const FIRST_DESCRIPTOR = 16;
/** Descriptors stand one after another; real images have fewer than ten before the terminator, UDF's three behind it. */
const MOST_DESCRIPTORS = 32;

export interface IsoVolume {
  volumeId: string;
  systemId: string;
  publisher: string;
  preparer: string;
  application: string;
  sectors: number;
  joliet: string | null;
  udf: boolean;
  bootCatalogLba: number | null;
  rootLba: number;
  rootBytes: number;
}

const JOLIET = ["%/@", "%/C", "%/E"];

/** The volume descriptors of ISO 9660 (ECMA-119, clause 8), with Joliet, the El Torito boot record, and UDF behind them. */
export function* readIso(): Reading<IsoVolume | null> {
  const b = yield* read(FIRST_DESCRIPTOR * SECTOR, MOST_DESCRIPTORS * SECTOR);
  let volume: IsoVolume | null = null;
  let joliet: string | null = null;
  let catalog: number | null = null;
  let udf = false;
  for (let at = 0; b.has(at, SECTOR); at += SECTOR) {
    const d = b.sub(at, SECTOR);
    if (d.starts(1, "NSR02") || d.starts(1, "NSR03")) udf = true;
    if (!d.starts(1, "CD001")) {
      if (!/^(BEA01|NSR0[23]|TEA01|BOOT2|CDW02)$/.test(d.text(1, 5))) break;
      continue;
    }
    if (d.u8(0) === 1 && !volume) volume = primary(d);
    if (d.u8(0) === 2 && JOLIET.some((e) => d.starts(88, e))) joliet ??= d.utf16be(40, 32);
    if (d.u8(0) === 0 && d.starts(7, "EL TORITO SPECIFICATION")) catalog ??= d.u32(71);
  }
  return volume && { ...volume, joliet, udf, bootCatalogLba: catalog };
}

const primary = (d: Bytes): IsoVolume => ({
  systemId: d.text(8, 32),
  volumeId: d.text(40, 32),
  sectors: d.u32(80),
  rootLba: d.u32(156 + 2),
  rootBytes: d.u32(156 + 10),
  publisher: d.text(318, 128),
  preparer: d.text(446, 128),
  application: d.text(574, 128),
  joliet: null,
  udf: false,
  bootCatalogLba: null,
});

export interface BootEntry {
  platform: "BIOS" | "UEFI" | "other";
  bootable: boolean;
  emulation: "none" | "floppy 1.2" | "floppy 1.44" | "floppy 2.88" | "hard disk" | "unknown";
  /** In units of 512 bytes, as the catalog counts. */
  loadSectors: number;
  offset: number;
  inside: boolean;
}

export interface BootCatalog {
  offset: number;
  checksumFits: boolean;
  entries: BootEntry[];
}

const EMULATION = ["none", "floppy 1.2", "floppy 1.44", "floppy 2.88", "hard disk"] as const;

/** The boot catalog (El Torito 1.0, section 2): validation entry, initial entry, sections. */
export function* readCatalog(lba: number, size: number): Reading<BootCatalog | null> {
  const offset = lba * SECTOR;
  const c = yield* read(offset, SECTOR);
  if (c.length < 64 || c.u8(0) !== 1) return null;
  const sum = Array.from({ length: 16 }, (_, i) => c.u16(2 * i)).reduce((n, w) => (n + w) & 0xffff, 0);
  const entry = (at: number, platform: number): BootEntry => {
    const start = c.u32(at + 8) * SECTOR;
    return {
      platform: platform === 0 ? "BIOS" : platform === 0xef ? "UEFI" : "other",
      bootable: c.u8(at) === 0x88,
      emulation: EMULATION[c.u8(at + 1) & 15] ?? "unknown",
      loadSectors: c.u16(at + 6),
      offset: start,
      inside: start < size,
    };
  };
  const entries = [entry(32, c.u8(1))];
  for (let at = 64; c.has(at, 32) && (c.u8(at) === 0x90 || c.u8(at) === 0x91);) {
    const [last, platform, count] = [c.u8(at) === 0x91, c.u8(at + 1), c.u16(at + 2)];
    at += 32;
    for (let i = 0; i < count && c.has(at, 32); i += 1, at += 32)
      if (c.u8(at) === 0x88 || c.u8(at) === 0) entries.push(entry(at, platform));
    if (last) break;
  }
  return { offset, checksumFits: sum === 0, entries };
}

/** EFI programs in the ISO's own tree, under EFI/BOOT: firmware does not look there, but people do. */
export function* readTreeLoaders(volume: IsoVolume): Reading<string[]> {
  const efi = yield* find(volume.rootLba, volume.rootBytes, "EFI");
  const boot = efi ? yield* find(efi.lba, efi.bytes, "BOOT") : null;
  if (!boot) return [];
  return (yield* records(boot.lba, boot.bytes))
    .filter((r) => !r.folder && /\.EFI$/i.test(r.name))
    .map((r) => `EFI/BOOT/${r.name}`)
    .slice(0, 12);
}

interface DirectoryRecord {
  name: string;
  lba: number;
  bytes: number;
  folder: boolean;
}

function* find(lba: number, bytes: number, name: string): Reading<DirectoryRecord | null> {
  return (yield* records(lba, bytes)).find((r) => r.folder && r.name.toUpperCase() === name) ?? null;
}

/** Directory records (ECMA-119, 9.1). At most 64 KiB of a folder are read, and a record of length 0 jumps to the next sector. */
function* records(lba: number, bytes: number): Reading<DirectoryRecord[]> {
  const b = yield* read(lba * SECTOR, Math.min(bytes, 65_536));
  const found: DirectoryRecord[] = [];
  for (let at = 0; at < b.length;) {
    const length = b.u8(at);
    if (length < 34) {
      at = (Math.floor(at / SECTOR) + 1) * SECTOR;
      continue;
    }
    const name = b.text(at + 33, b.u8(at + 32)).replace(/;\d+$/, "");
    if (b.u8(at + 32) > 1 || b.u8(at + 33) > 1)
      found.push({ name, lba: b.u32(at + 2), bytes: b.u32(at + 10), folder: (b.u8(at + 25) & 2) !== 0 });
    at += length;
  }
  return found;
}
