import type { Bytes } from "../../binary";

/** A file that is no image as it stands: what it is, and what has to be done with it first. */
export interface Foreign {
  what: string;
  first: string;
}

const CONVERT = "convert it to a raw image first, or use it directly in a virtual machine";
const UNPACK = "extract it first; the image may be inside";
const SEPARATE = "it is loaded by a boot loader or over the network, and is not a bootable image";

/** Signs at fixed places, as each format's own description gives them. */
const SIGNS: readonly (readonly [at: number, sign: string, what: string, first: string])[] = [
  [0, "QFI\xfb", "a virtual disk (qcow2)", CONVERT],
  [0, "KDMV", "a virtual disk (VMDK)", CONVERT],
  [0, "COWD", "a virtual disk (VMDK)", CONVERT],
  [
    0,
    "# Disk DescriptorFile",
    "the descriptor of a virtual disk (VMDK); its data is in other files",
    CONVERT,
  ],
  [64, "\x7f\x10\xda\xbe", "a virtual disk (VDI)", CONVERT],
  [0, "conectix", "a virtual disk (VHD)", CONVERT],
  [0, "vhdxfile", "a virtual disk (VHDX)", CONVERT],
  [0, "\x1f\x8b", "a gzip file", UNPACK],
  [0, "\xfd7zXZ\0", "an xz file", UNPACK],
  [0, "\x28\xb5\x2f\xfd", "a zstd file", UNPACK],
  [0, "BZh", "a bzip2 file", UNPACK],
  [0, "\x04\x22\x4d\x18", "an lz4 file", UNPACK],
  [0, "PK\x03\x04", "a zip file", UNPACK],
  [0, "7z\xbc\xaf\x27\x1c", "a 7z archive", UNPACK],
  [257, "ustar", "a tar archive", UNPACK],
  [0, "MSWIM\0\0\0", "an installation archive (WIM)", "an installer extracts it; it is not bootable"],
  [0, "hsqs", "a squashfs file system", "it is part of a live system; it is not bootable"],
  [0, "070701", "an initramfs", SEPARATE],
  [0, "070702", "an initramfs", SEPARATE],
  [56, "ARM\x64", "a kernel for arm64", SEPARATE],
];

/** Reads of a file's beginning that are long enough for all signs. */
export const BEGINNING = 1024;

/** Containers keep a disk in an order of their own: what looks like a sector of it stands somewhere else. */
const isContainer = (what: string): boolean => what.includes("virtual disk");

/** What a file is by the signs at its beginning; `isImage` is whether it holds a file system or a table that is read. */
export function foreignOf(start: Bytes, isImage: boolean): Foreign | null {
  // A kernel for PCs carries its sign behind the first sector, and a boot sector that only says that it cannot boot.
  if (!isImage && start.starts(514, "HdrS")) return { what: "a kernel for x86", first: SEPARATE };
  const found = SIGNS.find(([at, sign, what]) => start.starts(at, sign) && (!isImage || isContainer(what)));
  if (!found) return null;
  const [, , what, first] = found;
  return { what, first };
}

/** A fixed virtual disk (VHD 1.0, "Hard Disk Footer Format"): a raw disk, and behind it 512 bytes that say so. */
export const isFixedVhd = (footer: Bytes): boolean =>
  footer.starts(0, "conectix") && footer.u8(60) === 0 && footer.u8(63) === 2;
