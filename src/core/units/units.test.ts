import fc from "fast-check";
import { describe, expect, it } from "vitest";
import {
  byteCount,
  bytesOf,
  formatBytes,
  formatDuration,
  formatExactBytes,
  parseByteSize,
  secondCount,
  sectorCount,
  sectorsIn,
  total,
  type ByteCount,
} from ".";

describe("bytes", () => {
  it.each([
    [480_103_981_056, "480 GB (447 GiB)"],
    [12_000_138_625_024, "12.0 TB (10.9 TiB)"],
    [999_999_999, "1.00 GB (954 MiB)"],
    [0, "0 B"],
  ])("%d bytes read as %s", (bytes, text) => expect(formatBytes(bytes)).toBe(text));

  it.each([
    ["731 906 048", 731_906_048],
    ["8 GB", 8_000_000_000],
    ["7.5GiB", 8_053_063_680],
    ["1,5 kB", 1500],
  ])("%s is %d bytes", (text, bytes) =>
    expect(parseByteSize(text)).toEqual({ ok: true, value: bytes, warnings: [] }),
  );

  it.each(["", "8 G", "eight", "-3 GB", "99999 PB"])("%j is refused", (text) =>
    expect(parseByteSize(text).ok).toBe(false),
  );

  it("reads back every size that it writes exactly", () => {
    fc.assert(
      fc.property(fc.nat({ max: 2 ** 40 }), (n) => {
        const read = parseByteSize(formatExactBytes(n));
        return read.ok && read.value === n;
      }),
      { seed: 7 },
    );
  });
});

it.each([
  [40, "40 s"],
  [360, "6 min"],
  [5100, "1 h 25 min"],
  [7200, "2 h"],
  [200_000, "2 d 7 h"],
])("%d seconds read as %s", (seconds, text) => expect(formatDuration(seconds)).toBe(text));

describe("counts of a unit", () => {
  it("turn into another only by the size of a sector", () => {
    expect(bytesOf(sectorCount(937_703_088), byteCount(512))).toBe(480_103_981_056);
    expect(sectorsIn(byteCount(480_103_981_056), byteCount(4096))).toBe(117_212_886);
    expect(sectorsIn(byteCount(4095), byteCount(4096))).toBe(0);
    expect(total([secondCount(60), secondCount(90)])).toBe(150);
    expect(total<ByteCount>([])).toBe(0);
  });

  it("are not taken for one another, nor for a bare number", () => {
    // @ts-expect-error bytes are no sectors
    bytesOf(byteCount(512), byteCount(512));
    // @ts-expect-error a bare number does not say what it counts
    bytesOf(8, byteCount(512));
    // @ts-expect-error bytes and seconds have no sum
    total<ByteCount>([byteCount(1), secondCount(1)]);
    expect(bytesOf(sectorCount(1), byteCount(512)) + 1).toBe(513);
  });
});
