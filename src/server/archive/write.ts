import { createHash } from "node:crypto";
import { Readable } from "node:stream";
import { pipeline } from "node:stream/promises";
import { createGzip } from "node:zlib";
import { pack as newPack, type Pack } from "tar-stream";
import { everything } from "./items";
import { fileOf, HEAD, MANIFEST } from "./names";
import type { Desk } from "../desk";

/** Pictures do not shrink, and JSON does at any level. */
const LEVEL = 1;
/** A reader that takes nothing for so long is gone; the moment of the database that is kept for it is let go. */
const STALLED_MILLISECONDS = 60_000;

/**
 * The whole installation as one compressed tar: a JSON document for each thing that is kept, pictures and raw texts as
 * files, and last a manifest with their sums. All of it is of one moment, and only one document is in memory at a time.
 */
export async function writeArchive(
  desk: Desk,
): Promise<{ exportedAt: string; stream: ReadableStream<Uint8Array> }> {
  const { snapshot } = desk;
  const exportedAt = desk.now();
  const pack = newPack();
  const out = createGzip({ level: LEVEL });
  const gone = (error: unknown): void => {
    const reason = error instanceof Error ? error : new Error(String(error));
    pack.destroy(reason);
    out.destroy(reason);
  };
  // A failure reaches the reader as a broken stream: an archive without its manifest is refused when it is read.
  void pipeline(pack, out).catch(gone);
  void snapshot(async (tx) => {
    const files: { name: string; bytes: number; sha256: string }[] = [];
    const put = async (name: string, bytes: Buffer): Promise<void> => {
      files.push({ name, bytes: bytes.length, sha256: createHash("sha256").update(bytes).digest("hex") });
      await entry(pack, name, bytes);
    };
    const json = (value: unknown): Buffer => Buffer.from(`${JSON.stringify(value, null, 1)}\n`);
    await put(HEAD, json({ format: "derrick-archive", version: 1, exportedAt }));
    for await (const { item, files: own } of everything(tx)) {
      await put(fileOf(item), json(item));
      for (const { name, bytes } of own) await put(name, bytes);
    }
    await entry(pack, MANIFEST, json({ files }));
    pack.finalize();
  }).catch(gone);
  return { exportedAt, stream: Readable.toWeb(out) as ReadableStream<Uint8Array> };
}

/** Writes one file; resolves when the reader has taken it, so that nothing piles up. Times are left out: equal data, equal bytes. */
function entry(pack: Pack, name: string, bytes: Buffer): Promise<void> {
  return new Promise((resolve, reject) => {
    const stalled = setTimeout(
      () => reject(new Error("The archive is not read any more: its download was interrupted.")),
      STALLED_MILLISECONDS,
    );
    pack.entry({ name, size: bytes.length, mtime: new Date(0), mode: 0o644 }, bytes, (error) => {
      clearTimeout(stalled);
      if (error) reject(error);
      else resolve();
    });
  });
}
