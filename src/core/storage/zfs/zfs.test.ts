import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { allocated, fileUnits, poolFigures, shapeFault, thickReservation, vdevShape } from ".";

// The measured pools are compared by tests/truth/zfs.ts; here stands what holds for all of them.
const T = 1e12;
const raidz = (parity: number, n: number, bytes = 4 * T) =>
  vdevShape(`raidz${parity}`, Array<number>(n).fill(bytes), 12);

describe("a vdev that cannot be", () => {
  it.each<[string, string, number[], number, RegExp]>([
    ["no devices", "mirror", [], 12, /no devices/],
    ["one device in a mirror", "mirror", [T], 12, /two devices/],
    ["as much parity as devices", "raidz2", [T, T], 12, /more than 2 devices/],
    ["a device of nothing", "mirror", [T, 0], 12, /smaller than 64 MiB/],
    ["a device of 2^60", "mirror", [T, 2 ** 60], 12, /check its size/],
    ["a device that is no number", "raidz1", [T, T, NaN], 12, /smaller than/],
    ["a thousand devices", "raidz3", Array<number>(1000).fill(T), 12, /255 are the most/],
    ["sectors of nothing", "mirror", [T, T], 0, /sectors/],
    ["a stripe of two", "stripe", [T, T], 12, /one device each/],
  ])("%s is told in words", (_, type, devices, ashift, words) => {
    expect(shapeFault(vdevShape(type, devices, ashift))).toMatch(words);
  });

  it("is told of dRAID as well, and sound ones have no fault", () => {
    const draid = (data: number, spares: number) =>
      vdevShape("draid2", Array<number>(11).fill(T), 12, { data, spares });
    expect(shapeFault(draid(8, 2))).toMatch(/8 data, 2 parity and 2 spares are more than 11/);
    expect(shapeFault(draid(0, 0))).toMatch(/data device/);
    expect([draid(8, 1), raidz(2, 6), vdevShape("draid1", [T, T, T, T], 12)].map(shapeFault)).toEqual([
      null,
      null,
      null,
    ]);
  });
});

it("makes less of twelve drives of 20 TB than their parity alone takes", () => {
  const usable = poolFigures([raidz(2, 12, 20_000_588_955_648)]).usable / T;
  expect(usable).toBeCloseTo(182.7, 1);
});

it("a byte less in one device is a byte less at the most in each, and one odd drive costs the others the difference", () => {
  const [even, odd] = [
    [4 * T, 4 * T, 4 * T],
    [4 * T, 4 * T, 6 * T],
  ].map((d) => poolFigures([vdevShape("raidz1", d, 12)]).usable);
  expect(odd).toBe(even);
});

it("volumes of small blocks take twice their size on six drives with two of parity, and no more from 16 KiB on", () => {
  const thick = (block: number) => thickReservation([raidz(2, 6)], 2 ** 40, block) / 2 ** 40;
  expect([8, 16, 64].map((k) => Math.round(thick(k * 1024) * 100))).toEqual([203, 102, 100]);
  expect(fileUnits(raidz(2, 6), 1, 131_072)).toBe(17);
});

it("is between nothing and what the drives hold, never not a number, and grows with them", () => {
  const any = fc.record({
    parity: fc.integer({ min: 1, max: 3 }),
    n: fc.integer({ min: 4, max: 40 }),
    bytes: fc.integer({ min: 2 ** 28, max: 3e13 }),
    vdevs: fc.integer({ min: 1, max: 4 }),
  });
  fc.assert(
    fc.property(any, ({ parity, n, bytes, vdevs }) => {
      const pool = (b: number) => poolFigures(Array.from({ length: vdevs }, () => raidz(parity, n, b)));
      const { usable, size, slop } = pool(bytes);
      expect(usable).toBeGreaterThanOrEqual(0);
      // The ratio of a 128 KiB block favours some widths a little over what their parity takes.
      expect(usable).toBeLessThanOrEqual(bytes * (n - parity) * vdevs * 1.001);
      expect(size).toBeLessThanOrEqual(bytes * n * vdevs);
      expect(slop).toBeLessThanOrEqual(128 * 2 ** 30);
      expect(allocated(raidz(parity, n), 131_072)).toBeGreaterThan(131_072);
    }),
  );
});
