import { open, stat } from "node:fs/promises";
import { promisify } from "node:util";
import { constants, gunzip } from "node:zlib";
import { KERNEL_HEAD, kernelVersion, moduleVersions } from "@/core/netboot";
import type { Served } from "./image-file";

/** So much of an initial file system is looked through. */
const MOST = 96 * 2 ** 20;

async function headOf({ path, bytes, spans }: Served, most: number): Promise<Buffer> {
  const file = await open(path, "r");
  try {
    const parts: Buffer[] = [];
    let left = Math.min(bytes, most);
    for (const { offset, length } of spans) {
      if (left <= 0) break;
      const part = Buffer.alloc(Math.min(length, left));
      const { bytesRead } = await file.read(part, 0, part.length, offset);
      parts.push(part.subarray(0, bytesRead));
      left -= part.length;
    }
    return Buffer.concat(parts);
  } finally {
    await file.close();
  }
}

const gunzipped = promisify(gunzip);

/** An archive as far as it is there: packed with gzip, or not at all; null for any other packing. */
async function unpacked(bytes: Buffer): Promise<Buffer | null> {
  if (bytes.subarray(0, 5).toString("latin1") === "07070") return bytes;
  if (bytes[0] !== 0x1f || bytes[1] !== 0x8b) return null;
  try {
    return await gunzipped(bytes, { finishFlush: constants.Z_SYNC_FLUSH, maxOutputLength: 4 * MOST });
  } catch {
    return null;
  }
}

/** The versions that the modules of an initial file system are for; null where its packing is none that is read here. */
async function versionsIn(bytes: Buffer): Promise<string[] | null> {
  const found = new Set<string>();
  let rest = bytes;
  // Several archives may stand one behind the other, with zeros between: what the processor needs comes first, unpacked.
  for (let parts = 0; parts < 8 && rest.length > 0; parts += 1) {
    const text = await unpacked(rest);
    if (!text) return found.size > 0 ? [...found] : null;
    const { versions, end } = moduleVersions(text);
    for (const version of versions) found.add(version);
    if (text !== rest || end === null) break;
    const next = rest.subarray(end).findIndex((byte) => byte !== 0);
    if (next < 0) break;
    rest = rest.subarray(end + next);
  }
  return [...found].sort();
}

/** What is wrong with a kernel and its initial file systems, or what could not be compared of them, which stops nothing. */
type Verdict = { stop: boolean; words: string } | null;

const kept = new Map<string, Verdict>();

/** Whether the initial file systems of an image are for its kernel; null where one is, or where they have no modules at all. */
export async function versionsProblem(kernel: Served, initrds: readonly Served[]): Promise<Verdict> {
  try {
    const { ino, mtimeMs } = await stat(kernel.path);
    // An image of the same name and size may be another one.
    const key = JSON.stringify([ino, mtimeMs, kernel, initrds]);
    const before = kept.get(key);
    if (before !== undefined) return before;
    const verdict = await compared(kernel, initrds);
    if (kept.size > 200) kept.clear();
    kept.set(key, verdict);
    return verdict;
  } catch (error) {
    const why = error instanceof Error ? error.message : String(error);
    return {
      stop: false,
      words: `Kernel and initial file system were not compared: the image could not be read (${why}).`,
    };
  }
}

async function compared(kernel: Served, initrds: readonly Served[]): Promise<Verdict> {
  const version = kernelVersion(await headOf(kernel, KERNEL_HEAD));
  if (version === null)
    return {
      stop: false,
      words: "Kernel and initial file system were not compared: the kernel does not tell its version.",
    };
  const all = await Promise.all(initrds.map(async (one) => versionsIn(await headOf(one, MOST))));
  const found = [...new Set(all.flatMap((one) => one ?? []))];
  if (found.includes(version)) return null;
  if (found.length > 0)
    return {
      stop: true,
      words: `The kernel is ${version}, and the initial file system has modules for ${found.join(" and ")}: it would find no driver.`,
    };
  return all.includes(null)
    ? {
        stop: false,
        words: `Kernel ${version} and its initial file system were not compared: the way in which it is packed is not read here, or it is too large.`,
      }
    : null;
}
