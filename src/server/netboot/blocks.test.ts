import { mkdtempSync, renameSync, rmSync, truncateSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { setTimeout as wait } from "node:timers/promises";
import { afterEach, beforeEach, expect, it } from "vitest";
import { readShared } from "./blocks";

const MIB = 2 ** 20;
let folder = "";
let path = "";

/** Five and a half MiB in which no two places look alike for long. */
const bytes = Buffer.from(Uint32Array.from({ length: (5.5 * MIB) / 4 }, (_, i) => i * 2654435761).buffer);

beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), "derrick-blocks-"));
  path = join(folder, "image");
  writeFileSync(path, bytes);
});
afterEach(() => rmSync(folder, { recursive: true }));

/** What comes of so many bytes from a place, to one who takes so many milliseconds over each piece. */
async function readAs(spans: { offset: number; length: number }[], pause = 0): Promise<Buffer> {
  const pieces: Buffer[] = [];
  await readShared(path, spans, async (piece) => {
    if (pause > 0) await wait(pause);
    // Taken when it is sent: a buffer that were filled anew too early would show here.
    pieces.push(Buffer.from(piece));
  });
  return Buffer.concat(pieces);
}

it.each([
  ["all of it", [{ offset: 0, length: bytes.length }]],
  ["a few bytes", [{ offset: 3 * MIB - 5, length: 10 }]],
  ["across blocks", [{ offset: MIB - 7, length: 2 * MIB + 9 }]],
  [
    "in two places, the second before the first",
    [
      { offset: 4 * MIB + 1, length: 1.2 * MIB },
      { offset: 17, length: MIB },
    ],
  ],
  ["nothing", []],
])("gives %s", async (_, spans) => {
  const wanted = Buffer.concat(spans.map(({ offset, length }) => bytes.subarray(offset, offset + length)));
  expect((await readAs(spans)).equals(wanted)).toBe(true);
});

it("gives each of many readers its own bytes, quick ones and slow ones, from wherever they begin", async () => {
  const readers = Array.from({ length: 40 }, (_, i) => ({
    span: { offset: i * 90_003, length: bytes.length - i * 120_001 },
    pause: i % 7,
  }));
  const got = await Promise.all(readers.map(({ span, pause }) => readAs([span], pause)));
  got.forEach((read, i) => {
    const { offset, length } = readers[i]!.span;
    expect(read.equals(bytes.subarray(offset, offset + length)), `reader ${i}`).toBe(true);
  });
});

it("one who goes away in the middle leaves the others their bytes", async () => {
  const [whole, gone] = await Promise.allSettled([
    readAs([{ offset: 0, length: bytes.length }], 3),
    readShared(path, [{ offset: 0, length: bytes.length }], () => Promise.reject(new Error("gone"))),
  ]);
  expect(gone).toMatchObject({ status: "rejected", reason: new Error("gone") });
  expect(whole.status === "fulfilled" && whole.value.equals(bytes)).toBe(true);
});

it("a file put in the place of one that is being read is another file", async () => {
  const first = readAs([{ offset: 0, length: bytes.length }], 10);
  await wait(15);
  const other = Buffer.alloc(bytes.length, 1);
  writeFileSync(`${path}.new`, other);
  renameSync(`${path}.new`, path);
  expect((await readAs([{ offset: 0, length: other.length }])).equals(other)).toBe(true);
  expect((await first).equals(bytes)).toBe(true);
});

it.each([[2 * MIB], [10]])(
  "says so when the file ends before its time, %i bytes from the start",
  async (left) => {
    truncateSync(path, left);
    await expect(readAs([{ offset: 0, length: bytes.length }])).rejects.toThrow("The file ended too early");
    await expect(readAs([{ offset: left - 2, length: 5 }])).rejects.toThrow("The file ended too early");
    await expect(
      readShared(join(folder, "none"), [{ offset: 0, length: 3 }], async () => {}),
    ).rejects.toThrow("ENOENT");
  },
);
