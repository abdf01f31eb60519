import { open, stat } from "node:fs/promises";
import { Readable } from "node:stream";
import { constants, createGunzip } from "node:zlib";
import { KERNEL_HEAD, kernelVersion, ModuleWalk } from "@/core/netboot";
import type { Served } from "./image-file";

/** So much of an initial file system is looked through. */
const MOST = 96 * 2 ** 20;

const PIECE = 2 ** 20;

/** The bytes of a file inside an image, piece by piece. */
async function* piecesOf({ path, bytes, spans }: Served, most: number): AsyncGenerator<Buffer> {
  const file = await open(path, "r");
  try {
    let left = Math.min(bytes, most);
    for (const { offset, length } of spans)
      for (let at = 0; at < length && left > 0;) {
        const piece = Buffer.alloc(Math.min(PIECE, length - at, left));
        const { bytesRead } = await file.read(piece, 0, piece.length, offset + at);
        if (bytesRead === 0) return;
        at += bytesRead;
        left -= bytesRead;
        yield piece.subarray(0, bytesRead);
      }
  } finally {
    await file.close();
  }
}

async function headOf(served: Served): Promise<Buffer> {
  const pieces: Buffer[] = [];
  for await (const piece of piecesOf(served, KERNEL_HEAD)) pieces.push(piece);
  return Buffer.concat(pieces);
}

/** What of a file was not looked at yet. */
class Rest {
  bytes: Buffer = Buffer.alloc(0);
  constructor(private readonly source: AsyncGenerator<Buffer>) {}

  /** True while there was more. */
  async more(): Promise<boolean> {
    const { value, done } = await this.source.next();
    if (!done) this.bytes = Buffer.concat([this.bytes, value]);
    return !done;
  }

  /** Past zeros; true where something stands behind them. */
  async pastZeros(): Promise<boolean> {
    for (;;) {
      const at = this.bytes.findIndex((byte) => byte !== 0);
      this.bytes = this.bytes.subarray(at < 0 ? this.bytes.length : at);
      if (this.bytes.length >= MAGIC) return true;
      if (!(await this.more())) return this.bytes.length > 0;
    }
  }

  async *all(): AsyncGenerator<Buffer> {
    do {
      yield this.bytes;
      this.bytes = Buffer.alloc(0);
    } while (await this.more());
  }

  close = () => this.source.return(undefined);
}

const MAGIC = 6;

/** Walks a packed archive as far as it is there; of one that is cut off, what was read counts. */
async function walkPacked(rest: Rest, walk: ModuleWalk): Promise<void> {
  const unpacked = createGunzip({ finishFlush: constants.Z_SYNC_FLUSH });
  const source = Readable.from(rest.all());
  source.on("error", (error) => unpacked.destroy(error));
  source.pipe(unpacked);
  let bytes = 0;
  try {
    for await (const piece of unpacked) {
      walk.push(piece as Buffer);
      bytes += (piece as Buffer).length;
      if (walk.isOver || bytes > 4 * MOST) break;
    }
  } finally {
    source.destroy();
    unpacked.destroy();
  }
}

/** The versions that the modules of an initial file system are for; null where its packing is none that is read here. */
async function versionsIn(served: Served): Promise<string[] | null> {
  const found = new Set<string>();
  const rest = new Rest(piecesOf(served, MOST));
  try {
    // Several archives may stand one behind the other, with zeros between: what the processor needs comes first, unpacked.
    for (let parts = 0; parts < 8 && (await rest.pastZeros()); parts += 1) {
      const walk = new ModuleWalk();
      const isPacked = rest.bytes[0] === 0x1f && rest.bytes[1] === 0x8b;
      if (!isPacked && rest.bytes.subarray(0, 5).toString("latin1") !== "07070")
        return found.size > 0 ? [...found].sort() : null;
      if (isPacked) await walkPacked(rest, walk).catch(() => undefined);
      else
        do rest.bytes = rest.bytes.subarray(walk.push(rest.bytes));
        while (!walk.isOver && (await rest.more()));
      for (const version of walk.versions) found.add(version);
      if (isPacked) return walk.isOver || found.size > 0 ? [...found].sort() : null;
    }
    return [...found].sort();
  } finally {
    await rest.close();
  }
}

/** What is wrong with a kernel and its initial file systems, or what could not be compared of them, which stops nothing. */
type Verdict = { stop: boolean; words: string } | null;

/** Verdicts and those that are on their way: of sheets that ask together for one image, one looks into it. */
const kept = new Map<string, Promise<Verdict>>();

/** Whether the initial file systems of an image are for its kernel; null where one is, or where they have no modules at all. */
export async function versionsProblem(kernel: Served, initrds: readonly Served[]): Promise<Verdict> {
  try {
    const { ino, mtimeMs } = await stat(kernel.path);
    // An image of the same name and size may be another one.
    const key = JSON.stringify([ino, mtimeMs, kernel, initrds]);
    const before = kept.get(key);
    if (before) return await before;
    if (kept.size > 200) kept.clear();
    const verdict = compared(kernel, initrds);
    kept.set(key, verdict);
    verdict.catch(() => kept.delete(key));
    return await verdict;
  } catch (error) {
    const why = error instanceof Error ? error.message : String(error);
    return {
      stop: false,
      words: `Kernel and initramfs were not compared: the image could not be read (${why}).`,
    };
  }
}

async function compared(kernel: Served, initrds: readonly Served[]): Promise<Verdict> {
  const version = kernelVersion(await headOf(kernel));
  if (version === null)
    return {
      stop: false,
      words: "Kernel and initramfs were not compared: the kernel has no version.",
    };
  const all = await Promise.all(initrds.map(versionsIn));
  const found = [...new Set(all.flatMap((one) => one ?? []))];
  if (found.includes(version)) return null;
  if (found.length > 0)
    return {
      stop: true,
      words: `The kernel is ${version}, and the initramfs has modules for ${found.join(" and ")}: drivers would be missing.`,
    };
  return all.includes(null)
    ? {
        stop: false,
        words: `Kernel ${version} and its initramfs were not compared: unsupported compression, or too large.`,
      }
    : null;
}
