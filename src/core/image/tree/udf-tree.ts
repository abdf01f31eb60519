import { Bytes, type Span } from "../../binary";
import { read, type Reading } from "../inspect/reader";
import { ANCHOR, BLOCKS, tagOf } from "../inspect/udf";
import { MOST_FOLDER_BYTES, type TreeEntry } from "./entry";

/** A UDF volume whose one partition lies where it says (ECMA-167; OSTA UDF 1.02 to 2.01). */
export interface UdfTree {
  block: number;
  /** Bytes from the start of the image to the first block of the partition. */
  start: number;
  root: TreeEntry;
}

/** Descriptors by the number in their tag (3/7.2.1, 4/7.2.1). */
const [PARTITION, LOGICAL, TERMINATING, FILE_SET, FILE_NAME, FILE, EXTENDED_FILE] = [
  5, 6, 8, 256, 257, 261, 266,
];
const [MOST_DESCRIPTORS, MOST_EXTENTS] = [64, 4096];
const FOLDER_TYPE = 4;

/** A name of a file: its first byte tells 8 or 16 bits a sign (OSTA UDF 2.1.1). */
function nameOf(b: Bytes): string {
  if (b.u8(0) === 16) return b.utf16be(1, b.length - 1);
  return b.u8(0) === 8 ? String.fromCharCode(...b.raw.subarray(1)) : "";
}

/** Where the extents of a file lie, or its bytes inside the entry itself (4/14.14). Null for what this reader does not know. */
function spansOf(
  entry: Bytes,
  at: number,
  length: number,
  kind: number,
  tree: Omit<UdfTree, "root">,
  origin: number,
): Span[] | null {
  if (kind === 3) return [{ offset: origin + at, length }];
  const size = kind === 0 ? 8 : kind === 1 ? 16 : 0;
  if (size === 0) return null;
  const spans: Span[] = [];
  for (let i = 0; i + size <= length && spans.length < MOST_EXTENTS; i += size) {
    const told = entry.u32(at + i);
    const bytes = told & 0x3fffffff;
    if (bytes === 0) break;
    // What is only allotted, or goes on elsewhere, has no bytes to be served here.
    if (told >>> 30 !== 0) return null;
    spans.push({ offset: tree.start + entry.u32(at + i + 4) * tree.block, length: bytes });
  }
  return spans;
}

/** The file or folder whose entry stands in a block of the partition (4/14.9, 4/14.17). */
function* entryAt(lba: number, name: string, tree: Omit<UdfTree, "root">): Reading<TreeEntry | null> {
  const origin = tree.start + lba * tree.block;
  const b = yield* read(origin, tree.block);
  const tag = tagOf(b);
  if (tag !== FILE && tag !== EXTENDED_FILE) return null;
  const [attributes, allocation] = tag === FILE ? [168, 172] : [208, 212];
  const at = allocation + 4 + b.u32(attributes);
  const bytes = b.u64(56);
  const spans = spansOf(b, at, b.u32(allocation), b.u16(34) & 7, tree, origin);
  if (bytes === null || !spans) return null;
  const whole = spans.reduce((sum, s) => sum + s.length, 0);
  return whole < bytes
    ? null
    : { name, isFolder: b.u8(27) === FOLDER_TYPE, bytes, spans: shortened(spans, bytes) };
}

/** The last extent may be longer than what the file has of it. */
function shortened(spans: readonly Span[], bytes: number): Span[] {
  let left = bytes;
  return spans.flatMap(({ offset, length }) => {
    const own = Math.min(length, left);
    left -= own;
    return own > 0 ? [{ offset, length: own }] : [];
  });
}

/** A UDF volume by its anchor; null where there is none, or one that is laid out in a way that this reader does not know. */
export function* udfRoot(): Reading<UdfTree | null> {
  for (const block of BLOCKS) {
    const anchor = yield* read(ANCHOR * block, 512);
    if (tagOf(anchor) !== 2 || anchor.u32(12) !== ANCHOR) continue;
    const count = Math.min(Math.ceil(anchor.u32(16) / block), MOST_DESCRIPTORS);
    let [start, set] = [-1, -1];
    for (let i = 0; i < count; i += 1) {
      const d = yield* read((anchor.u32(20) + i) * block, 512);
      const tag = tagOf(d);
      if (tag === null || tag === TERMINATING) break;
      if (tag === PARTITION && start < 0) start = d.u32(188) * block;
      // One map of the plain kind: blocks are counted from where the partition begins.
      if (tag === LOGICAL && d.u32(212) === block && d.u32(268) === 1 && d.u8(440) === 1) set = d.u32(252);
    }
    if (start < 0 || set < 0) return null;
    const tree = { block, start };
    const files = yield* read(start + set * block, 512);
    if (tagOf(files) !== FILE_SET) return null;
    const root = yield* entryAt(files.u32(404), "", tree);
    return root?.isFolder ? { ...tree, root } : null;
  }
  return null;
}

const [DELETED, PARENT] = [4, 8];

/** The bytes of a folder, whose extents lie apart. */
function* folderBytes({ spans, bytes }: TreeEntry): Reading<Bytes | null> {
  if (bytes > MOST_FOLDER_BYTES) return null;
  const parts: Bytes[] = [];
  for (const span of spans) parts.push(yield* read(span.offset, span.length));
  const [only] = parts;
  if (only && parts.length === 1) return only;
  const whole = new Uint8Array(bytes);
  let at = 0;
  for (const { raw } of parts) {
    whole.set(raw.subarray(0, bytes - at), at);
    at += raw.length;
  }
  return new Bytes(whole);
}

/** What a folder holds (4/14.4), each with its own entry read. */
export function* udfEntries(folder: TreeEntry, tree: UdfTree, wanted: string): Reading<TreeEntry[]> {
  const b = yield* folderBytes(folder);
  if (!b) return [];
  const found: TreeEntry[] = [];
  for (let at = 0; b.has(at, 38) && tagOf(b.sub(at, b.length - at), 38) === FILE_NAME;) {
    const [flags, nameLength, useLength] = [b.u8(at + 18), b.u8(at + 19), b.u16(at + 36)];
    const name = nameOf(b.sub(at + 38 + useLength, nameLength));
    const isHere = (flags & (DELETED | PARENT)) === 0;
    // Only the one that is looked for is read: every entry is a block of its own.
    if (isHere && name.toLowerCase() === wanted.toLowerCase()) {
      const entry = yield* entryAt(b.u32(at + 24), name, tree);
      if (entry) found.push(entry);
    }
    at += Math.ceil((38 + useLength + nameLength) / 4) * 4;
  }
  return found;
}
