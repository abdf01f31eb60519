import { createHash } from "node:crypto";
import { createReadStream } from "node:fs";
import { stat } from "node:fs/promises";
import { Transform } from "node:stream";
import { createGunzip } from "node:zlib";
import { extract } from "tar-stream";
import { itemSchema, moveTimes, type Item } from "@/core/record";
import { parseJson } from "@/core/text";
import { secondsBetween } from "@/core/units";
import { fileOf, HEAD, headSchema, MANIFEST, manifestSchema } from "./names";

/** The archive cannot be used, with the file in it that says why. */
export class ArchiveError extends Error {}

/** No document comes near this; a picture has at most 6 MB. */
const MOST_BYTES = 64_000_000;
/** Documents of one kind shrink to a fiftieth at the best: what grows more than this on unpacking is none of Derrick's. */
const [MOST_GROWTH, FREE_BYTES] = [200, 64_000_000];
/** A tar ends with 1 KiB of them, or fills up a block of 10 KiB. */
const MOST_ZEROS = 2 ** 20;
/** So long nothing is written by others while an archive is read; the largest that was tried took a twentieth. */
const MOST_MILLISECONDS = 20 * 60_000;

/** Passes what is unpacked, and stops what grows without measure or takes without end. */
function withinMeasure(packedBytes: number): Transform {
  const began = performance.now();
  let [bytes, zeros] = [0, 0];
  return new Transform({
    transform(chunk: Buffer, _, done) {
      bytes += chunk.length;
      if (bytes > FREE_BYTES + packedBytes * MOST_GROWTH)
        return done(
          new ArchiveError(
            `The archive expands to more than ${MOST_GROWTH} times its size, which no archive of Derrick does. Nothing was imported.`,
          ),
        );
      zeros = chunk.some((byte) => byte !== 0) ? 0 : zeros + chunk.length;
      if (zeros > MOST_ZEROS)
        return done(
          new ArchiveError("The archive is filled with zeros, so it is not an archive of Derrick."),
        );
      if (performance.now() - began > MOST_MILLISECONDS)
        return done(new ArchiveError("The archive was not read within 20 minutes. Nothing was imported."));
      done(null, chunk);
    },
  });
}

/** An item with the files that it names, in their order. */
export interface Arriving {
  item: Item;
  place: string;
  files: Buffer[];
}

interface Entry {
  name: string;
  bytes: Buffer;
}

/** The files of a compressed tar, one in memory at a time. Links, folders and files that are too large end the reading. */
async function* entriesOf(path: string): AsyncGenerator<Entry> {
  const tar = extract();
  const file = createReadStream(path);
  const gunzip = createGunzip();
  const measured = withinMeasure((await stat(path)).size);
  for (const stage of [file, gunzip, measured]) stage.on("error", (error: Error) => tar.destroy(error));
  file.pipe(gunzip).pipe(measured).pipe(tar);
  try {
    for await (const entry of tar) {
      const { name, type, size = 0 } = entry.header;
      if (type !== "file") throw new ArchiveError(`${name}: an archive of Derrick has plain files only.`);
      if (size > MOST_BYTES) throw new ArchiveError(`${name}: larger than any file of Derrick.`);
      const chunks: Buffer[] = [];
      for await (const chunk of entry) chunks.push(chunk as Buffer);
      yield { name, bytes: Buffer.concat(chunks) };
    }
  } catch (error) {
    if (error instanceof ArchiveError) throw error;
    throw new ArchiveError(
      "This is not an archive of Derrick, or it is truncated or damaged. Nothing was imported.",
    );
  } finally {
    for (const stage of [file, gunzip, measured]) stage.destroy();
  }
}

function json(name: string, bytes: Buffer): unknown {
  const read = parseJson(bytes.toString("utf8"), { depth: 100, parts: 5_000_000 });
  if (!read.ok) throw new ArchiveError(`${name}: ${read.problems[0]?.message}`);
  return read.value;
}

function shaped<T>(
  name: string,
  schema: {
    safeParse(v: unknown): {
      success: boolean;
      data?: T;
      error?: { issues: { path: PropertyKey[]; message: string }[] };
    };
  },
  value: unknown,
): T {
  const read = schema.safeParse(value);
  if (read.success) return read.data as T;
  const [issue] = read.error?.issues ?? [];
  throw new ArchiveError(`${name}: ${issue?.path.join(".")} ${issue?.message}`);
}

const filesOf = (item: Item): string[] =>
  item.kind === "picture" ? [item.file] : item.kind === "import" ? item.texts.map((t) => t.file) : [];

/**
 * The items of an archive, each with its files. With `moveTo` all times are moved so that the export is of that time. The
 * sums are compared at the end, so a first reading must go through before anything is kept of a second.
 */
export async function* arriving(path: string, moveTo: string | null): AsyncGenerator<Arriving> {
  const sums = new Map<string, { bytes: number; sha256: string }>();
  let shift: number | null = null;
  let whole = false;
  let open: Arriving | null = null;
  for await (const { name, bytes } of entriesOf(path)) {
    if (whole) throw new ArchiveError(`${name}: after the manifest, which must be the last file.`);
    if (name === MANIFEST) {
      compare(sums, shaped(name, manifestSchema, json(name, bytes)));
      whole = true;
      continue;
    }
    if (sums.has(name)) throw new ArchiveError(`${name}: in the archive twice.`);
    sums.set(name, { bytes: bytes.length, sha256: createHash("sha256").update(bytes).digest("hex") });
    if (shift === null) {
      if (name !== HEAD) throw new ArchiveError(`${name}: an archive of Derrick begins with ${HEAD}.`);
      const { exportedAt } = shaped(name, headSchema, json(name, bytes));
      shift = moveTo ? secondsBetween(exportedAt, moveTo) : 0;
      continue;
    }
    if (open) {
      const wanted: string | undefined = filesOf(open.item)[open.files.length];
      if (name !== wanted) throw new ArchiveError(`${open.place}: its file ${wanted} does not follow.`);
      open.files.push(bytes);
    } else {
      const value = json(name, bytes);
      const item = shaped(name, itemSchema, shift === 0 ? value : moveTimes(value, shift));
      if (fileOf(item) !== name) throw new ArchiveError(`${name}: its contents belong in ${fileOf(item)}.`);
      open = { item, place: name, files: [] };
    }
    if (filesOf(open.item).length > open.files.length) continue;
    yield open;
    open = null;
  }
  if (open) throw new ArchiveError(`${open.place}: its files are missing.`);
  if (!whole)
    throw new ArchiveError("The archive ends before its manifest: it is truncated. Nothing was imported.");
}

function compare(
  sums: ReadonlyMap<string, { bytes: number; sha256: string }>,
  { files }: { files: { name: string; bytes: number; sha256: string }[] },
): void {
  for (const { name, bytes, sha256 } of files) {
    const own = sums.get(name);
    if (!own) throw new ArchiveError(`${name}: in the manifest, but not in the archive.`);
    if (own.bytes !== bytes || own.sha256 !== sha256)
      throw new ArchiveError(`${name}: changed since the archive was written (checksum differs).`);
  }
  const named = new Set(files.map((f) => f.name));
  for (const name of sums.keys())
    if (!named.has(name)) throw new ArchiveError(`${name}: not in the manifest.`);
}
