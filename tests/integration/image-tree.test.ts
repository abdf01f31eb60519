import { execFileSync } from "node:child_process";
import { mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { dirname, join } from "node:path";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { drive, fileInImage } from "@/core/image";
import { seeded } from "../support/random";

// Files inside images that real programs have made, found by range reads and compared byte by byte.

const folder = mkdtempSync(join(tmpdir(), "derrick-tree-"));
afterAll(() => rmSync(folder, { recursive: true }));

const random = seeded(16);
const bytesOf = (length: number): Buffer =>
  Buffer.from(Array.from({ length }, () => Math.floor(random() * 256)));
const LONG = `a-name-that-is-much-longer-than-iso-allows-${"x".repeat(180)}.cfg`;
const FILES: Record<string, Buffer> = {
  "casper/vmlinuz": bytesOf(70_001),
  "casper/initrd.gz": bytesOf(300_000),
  "images/pxeboot/vmlinuz": bytesOf(2048),
  "deep/er/and/deeper/file with blanks.txt": bytesOf(5),
  [`names/${LONG}`]: bytesOf(99),
  "names/Grüße": bytesOf(3),
  ".treeinfo": bytesOf(12),
  empty: Buffer.alloc(0),
  ...Object.fromEntries(Array.from({ length: 120 }, (_, i) => [`many/file-${i}.bin`, bytesOf(7 + i)])),
};

beforeAll(() => {
  for (const [path, bytes] of Object.entries(FILES)) {
    mkdirSync(dirname(join(folder, "tree", path)), { recursive: true });
    writeFileSync(join(folder, "tree", path), bytes);
  }
  const make = (name: string, program: string, ...words: string[]) =>
    execFileSync(program, [...words, "-quiet", "-o", join(folder, name), join(folder, "tree")], {
      stdio: "pipe",
    });
  make("rock.iso", "xorrisofs", "-R");
  make("plain.iso", "xorrisofs", "-iso-level", "3");
  make("joliet.iso", "xorrisofs", "-J", "-joliet-long", "-R");
  make(
    "bridge.iso",
    "genisoimage",
    "-udf",
    "-allow-limited-size",
    "-iso-level",
    "3",
    "-input-charset",
    "utf-8",
  );
});

function found(image: string | Buffer, path: string): Buffer | null {
  const whole = typeof image === "string" ? readFileSync(join(folder, image)) : image;
  const { value } = drive(fileInImage(whole.length, path), whole.length, ({ offset, length }) =>
    whole.subarray(offset, offset + length),
  );
  if (!value) return null;
  const parts = value.spans.map(({ offset, length }) => whole.subarray(offset, offset + length));
  expect(parts.reduce((sum, p) => sum + p.length, 0)).toBe(value.bytes);
  return Buffer.concat(parts);
}

describe("a file inside an image", () => {
  it.each(["rock.iso", "joliet.iso"])("%s: by its whole name, byte for byte", (image) => {
    for (const [path, bytes] of Object.entries(FILES))
      expect(found(image, path)?.equals(bytes), path).toBe(true);
  });

  it("plain.iso: by the name that the format leaves, in any case", () => {
    for (const path of ["casper/vmlinuz", "CASPER/INITRD.GZ", "/images/pxeboot/vmlinuz", "empty"])
      expect(found("plain.iso", path)?.equals(FILES[path.replace(/^\//, "").toLowerCase()]!), path).toBe(
        true,
      );
  });

  it("an image whose ISO side is wiped is read by its UDF side", () => {
    const whole = readFileSync(join(folder, "bridge.iso"));
    // The primary descriptor of ISO 9660 loses its mark; what UDF says stands elsewhere.
    whole.write("XXXXX", 16 * 2048 + 1, "latin1");
    for (const path of [
      "casper/vmlinuz",
      "casper/initrd.gz",
      "images/pxeboot/vmlinuz",
      "many/file-99.bin",
      `names/${LONG}`,
    ])
      expect(found(whole, path)?.equals(FILES[path]!), path).toBe(true);
    expect(found(whole, "casper/nothing")).toBeNull();
    expect(found(whole, "casper")).toBeNull();
  });

  it("is none where the path leads elsewhere, to a folder, or to nothing", () => {
    for (const path of [
      "",
      "/",
      "..",
      "casper/../casper/vmlinuz",
      "./empty",
      "casper",
      "casper/vmlinuz/x",
      "a\0b",
      "nothing",
    ])
      expect(found("rock.iso", path), path).toBeNull();
  });

  it("is none in what is cut off or full of noise, without an end of its own", () => {
    const whole = readFileSync(join(folder, "rock.iso"));
    for (const cut of [0, 100, 33_000, 40_000, 60_000]) {
      expect(found(whole.subarray(0, cut), "casper/vmlinuz"), String(cut)).toBeNull();
    }
    for (let i = 0; i < 200; i += 1) {
      const noisy = Buffer.from(whole.subarray(0, 120_000));
      for (let j = 0; j < 40; j += 1)
        noisy[32_768 + Math.floor(random() * 60_000)] = Math.floor(random() * 256);
      const { bytesRead } = drive(
        fileInImage(noisy.length, "casper/vmlinuz"),
        noisy.length,
        ({ offset, length }) => noisy.subarray(offset, offset + length),
      );
      expect(bytesRead).toBeLessThan(4 * 2 ** 20 + 1);
    }
  });
});
