import { open, type FileHandle } from "node:fs/promises";

// A reader alone is fed half as fast with a quarter of it, by the way to the disk and back for each piece (see the bench).
const BLOCK_BYTES = 2 ** 20;

/** A piece of a file in memory, while somebody sends it and for a while after. */
interface Block {
  buffer: Buffer;
  users: number;
  /** How many bytes of the file stand in it, once they are read. */
  filled: Promise<number>;
}

interface Shared {
  file: FileHandle;
  readers: number;
  /** By their number in the file, the one that was read first first. */
  blocks: Map<number, Block>;
}

/** Files that are read now, each by what it was when it was opened: one put in its place is another. */
const opened = new Map<string, Shared>();

async function openShared(path: string): Promise<[string, Shared]> {
  const file = await open(path, "r");
  const { dev, ino, mtimeMs, size } = await file.stat();
  const key = `${dev} ${ino} ${mtimeMs} ${size}`;
  const there = opened.get(key);
  const shared = there ?? { file, readers: 0, blocks: new Map<number, Block>() };
  opened.set(key, shared);
  shared.readers += 1;
  if (there) await file.close();
  return [key, shared];
}

/** Where so many read at the same time, each waits for its next block: hundreds of slow ones would fill the memory. */
const MOST_AHEAD = 32;

/**
 * A buffer that nobody uses any more, the oldest; a new one while there are few: it costs more than the copying (see the bench).
 * What was kept for readers who have gone is let go.
 */
function freeBuffer({ blocks, readers }: Shared): Buffer {
  const most = readers + Math.min(readers, MOST_AHEAD);
  let free: Buffer | null = null;
  for (const [number, { buffer, users }] of blocks) {
    if (blocks.size <= most) break;
    if (users > 0) continue;
    blocks.delete(number);
    free = buffer;
  }
  return free ?? Buffer.allocUnsafeSlow(BLOCK_BYTES);
}

/** Fills a buffer from a place of a file, as far as the file goes; one read may give less than it was asked for. */
async function fill(file: FileHandle, buffer: Buffer, place: number): Promise<number> {
  let filled = 0;
  while (filled < buffer.length) {
    const { bytesRead } = await file.read(buffer, filled, buffer.length - filled, place + filled);
    if (bytesRead === 0) break;
    filled += bytesRead;
  }
  return filled;
}

function take(shared: Shared, number: number): Block {
  let block = shared.blocks.get(number);
  if (!block) {
    const buffer = freeBuffer(shared);
    block = { buffer, users: 0, filled: fill(shared.file, buffer, number * BLOCK_BYTES) };
    shared.blocks.set(number, block);
    // What could not be read is read anew by who asks next.
    block.filled.catch(() => shared.blocks.delete(number));
  }
  block.users += 1;
  return block;
}

/** The numbers of the blocks in which these bytes lie, with what of each is wanted. */
function* placesOf(spans: readonly Span[]): Generator<{ number: number; from: number; to: number }> {
  for (const { offset, length } of spans)
    for (let at = offset; at < offset + length;) {
      const number = Math.floor(at / BLOCK_BYTES);
      const to = Math.min(offset + length, (number + 1) * BLOCK_BYTES);
      yield { number, from: at - number * BLOCK_BYTES, to: to - number * BLOCK_BYTES };
      at = to;
    }
}

interface Span {
  offset: number;
  length: number;
}

type Send = (piece: Buffer) => Promise<void>;

/** Less than a block is read by itself: of a package of some kilobytes no more than it is. */
async function readSmall(path: string, spans: readonly Span[], send: Send): Promise<void> {
  const file = await open(path, "r");
  try {
    for (const { offset, length } of spans) {
      const buffer = Buffer.allocUnsafe(length);
      if ((await fill(file, buffer, offset)) < length) throw new Error(CUT_SHORT);
      await send(buffer);
    }
  } finally {
    await file.close();
  }
}

const CUT_SHORT = "The file ended too early.";

/**
 * Reads bytes of a file in their order and gives each piece to `send`, the next being read while one is sent. Machines that
 * read the same file at the same time share what is read: twenty that start together read it once. Throws when the file ends
 * before its time, cannot be read, or sending fails.
 */
export async function readShared(path: string, spans: readonly Span[], send: Send): Promise<void> {
  if (spans.reduce((sum, { length }) => sum + length, 0) < BLOCK_BYTES) return readSmall(path, spans, send);
  const [key, shared] = await openShared(path);
  const held: Block[] = [];
  const places = placesOf(spans);
  const ahead = (): { block: Block; from: number; to: number } | null => {
    const place = places.next().value;
    if (!place) return null;
    const block = take(shared, place.number);
    held.push(block);
    return { block, ...place };
  };
  try {
    for (let at = ahead(); at;) {
      const { block, from, to } = at;
      if ((await block.filled) < to) throw new Error(CUT_SHORT);
      const next = shared.readers <= MOST_AHEAD ? ahead() : null;
      await send(block.buffer.subarray(from, to));
      held.shift()!.users -= 1;
      at = next ?? ahead();
    }
  } finally {
    // What is being read is read to its end before the file is closed.
    await Promise.allSettled(held.map(({ filled }) => filled));
    for (const block of held) block.users -= 1;
    shared.readers -= 1;
    if (shared.readers === 0) {
      opened.delete(key);
      await shared.file.close();
    }
  }
}
