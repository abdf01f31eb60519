// Which version a kernel is of, and for which the modules of an initial file system are: a kernel finds no driver among those
// of another one, and stands there without network or drive.

const word = (bytes: Uint8Array, at: number, length: number): number =>
  Array.from(bytes.subarray(at, at + length)).reduce((sum, byte, i) => sum + byte * 256 ** i, 0);

const textAt = (bytes: Uint8Array, at: number, most: number): string => {
  const end = bytes.subarray(at, at + most).indexOf(0);
  return String.fromCharCode(...bytes.subarray(at, at + (end < 0 ? 0 : end)));
};

/** So many bytes of its beginning tell the version of a kernel. */
export const KERNEL_HEAD = 65_536;

/**
 * The version of a kernel for x86, such as "6.1.0-18-amd64", by its header ("HdrS" at 0x202, and at 0x20e where the text lies,
 * less 0x200: the boot protocol of Linux); null for a file of another kind.
 */
export function kernelVersion(head: Uint8Array): string | null {
  if (head.length < 0x210 || textAt(Uint8Array.from([...head.subarray(0x202, 0x206), 0]), 0, 5) !== "HdrS")
    return null;
  const [version = ""] = textAt(head, word(head, 0x20e, 2) + 0x200, 200).split(" ");
  return /^\d+\.\d+/.test(version) ? version : null;
}

const NEWC = /^07070[12]$/;
const [HEADER, NAME_SIZE_AT, FILE_SIZE_AT] = [110, 94, 54];
const aligned = (at: number): number => (at + 3) & ~3;

/**
 * The versions of the kernels that an archive of the kind "newc" (cpio(5)) has modules for, by its names, and where the archive
 * ends; null where the bytes end before it does.
 */
export function moduleVersions(bytes: Uint8Array): { versions: string[]; end: number | null } {
  const versions = new Set<string>();
  const hex = (at: number): number =>
    Number.parseInt(textAt(Uint8Array.from([...bytes.subarray(at, at + 8), 0]), 0, 9), 16);
  for (let at = 0; at + HEADER <= bytes.length;) {
    if (!NEWC.test(textAt(Uint8Array.from([...bytes.subarray(at, at + 6), 0]), 0, 7))) break;
    const [nameSize, fileSize] = [hex(at + NAME_SIZE_AT), hex(at + FILE_SIZE_AT)];
    if (!Number.isFinite(nameSize) || !Number.isFinite(fileSize) || nameSize < 1) break;
    const name = textAt(bytes, at + HEADER, Math.min(nameSize, 4096));
    at = aligned(aligned(at + HEADER + nameSize) + fileSize);
    if (name === "TRAILER!!!") return { versions: [...versions].sort(), end: at };
    const [, version] = /^(?:\.?\/)?(?:usr\/)?lib\/modules\/([^/]+)/.exec(name) ?? [];
    if (version) versions.add(version);
  }
  return { versions: [...versions].sort(), end: null };
}
