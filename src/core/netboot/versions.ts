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

const latin = (bytes: Uint8Array): string => String.fromCharCode(...bytes);
/** Longer names are none of a module, and are not kept to be looked at. */
const MOST_NAME = 4096;
const NOTHING = new Uint8Array(0);

/**
 * Reads an archive of the kind "newc" (cpio(5)) in pieces as they come: of which kernels it has modules, by its names. What
 * stands in its files is passed over, so that it takes no memory however large it is.
 */
export class ModuleWalk {
  readonly versions = new Set<string>();
  /** Its end was reached, or something that is no archive. */
  isOver = false;
  private head: Uint8Array = NOTHING;
  private passing = 0;

  /** Takes a piece; how many of its bytes belong to the archive. */
  push(piece: Uint8Array): number {
    let at = 0;
    while (at < piece.length && !this.isOver) {
      const passed = Math.min(this.passing, piece.length - at);
      this.passing -= passed;
      at += passed;
      if (at < piece.length) at += this.read(piece.subarray(at));
    }
    return at;
  }

  /** The next bytes of a header with its name, until it is whole. */
  private read(piece: Uint8Array): number {
    const wanted = (this.head.length < HEADER ? HEADER : this.nameEnd()) - this.head.length;
    const part = piece.subarray(0, wanted);
    this.head = Uint8Array.from([...this.head, ...part]);
    if (this.head.length === HEADER && !this.isHeader()) this.isOver = true;
    else if (this.head.length > HEADER && this.head.length === this.nameEnd()) this.entry();
    return part.length;
  }

  private field = (at: number): number => Number.parseInt(latin(this.head.subarray(at, at + 8)), 16);
  private nameEnd = (): number => HEADER + Math.min(this.field(NAME_SIZE_AT), MOST_NAME);
  private isHeader = (): boolean =>
    NEWC.test(latin(this.head.subarray(0, 6))) &&
    this.field(NAME_SIZE_AT) >= 1 &&
    this.field(FILE_SIZE_AT) >= 0;

  private entry(): void {
    const name = textAt(this.head, HEADER, this.head.length - HEADER);
    const body = aligned(HEADER + this.field(NAME_SIZE_AT));
    this.passing = body - this.head.length + aligned(this.field(FILE_SIZE_AT));
    this.head = NOTHING;
    if (name === "TRAILER!!!") this.isOver = true;
    const [, version] = /^(?:\.?\/)?(?:usr\/)?lib\/modules\/([^/]+)/.exec(name) ?? [];
    if (version) this.versions.add(version);
  }
}
