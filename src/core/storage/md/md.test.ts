import { describe, expect, it } from "vitest";
import { mdFault, mdFigures, type MdShape } from ".";

const shape = (changes: Partial<MdShape> = {}): MdShape => ({
  ...{
    level: 10,
    members: 4,
    memberBytes: 4_000_787_030_016,
    metadata: "1.2",
    chunkKib: null,
    layout: "near",
    copies: 2,
  },
  ...changes,
});

describe("an array", () => {
  it.each([
    [100 * 2 ** 20, 2],
    [10 * 2 ** 30, 9],
    [100 * 2 ** 30, 65],
    [200 * 2 ** 30, 129],
    [18e12, 129],
  ])("of members of %d bytes keeps %d MiB in front of its data", (memberBytes, mib) => {
    expect(mdFigures(shape({ memberBytes })).dataOffset).toBe(mib * 2048);
  });

  it("uses half of what two copies stand on, wherever they stand, and whole chunks of an odd number", () => {
    const bytes = (["near", "far", "offset"] as const).map(
      (layout) => mdFigures(shape({ layout })).arrayBytes,
    );
    const { used } = mdFigures(shape());
    for (const b of bytes) expect(b / 512 / used).toBeCloseTo(2, 5);
    const odd = mdFigures(shape({ members: 5 })).arrayBytes;
    expect(odd / 512 / used).toBeCloseTo(2.5, 5);
    expect(odd % (512 * 1024)).toBe(0);
  });

  it.each<[Partial<MdShape>, RegExp]>([
    [{ level: 6, members: 3 }, /RAID6 has 4 members/],
    [{ members: 1 }, /2 members or more/],
    [{ memberBytes: 0 }, /smaller than 4 MiB/],
    [{ memberBytes: 2 ** 60 }, /check its size/],
    [{ copies: 5 }, /up to one on each/],
    [{ chunkKib: 100 }, /power of two/],
  ])("that cannot be is told in words: %j", (changes, words) =>
    expect(mdFault(shape(changes))).toMatch(words),
  );
  it("that can be has no fault", () => expect(mdFault(shape())).toBeNull());
});
