import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { formatBytes, formatDuration, formatExactBytes, parseByteSize } from ".";

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
