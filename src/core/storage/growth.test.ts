import { describe, expect, it } from "vitest";
import type { Layout } from "./bench";
import { growthOf } from "./growth";

const T12 = 12_000_138_625_024;
const T20 = 20_000_588_955_648;
const layout = (type: string | number, groups: number[][], school = "ZFS"): Layout =>
  ({ kind: { school, type }, groups, spares: [], left: [], distributed: 0, data: 0 }) as unknown as Layout;
const range = (n: number, from = 0): number[] => Array.from({ length: n }, (_, i) => from + i);
const ASKED = { sector: 512 as const, media: "spinning" as const, full: 50, larger: T20 };
const grown = (of: Layout, sizes: number[], more: object = {}) => growthOf(of, sizes, { ...ASKED, ...more });

describe("a set grows", () => {
  it("by larger drives once all are in, by a group at once, by one drive laid out anew", () => {
    const ways = grown(layout("raidz2", [range(10)]), Array<number>(10).fill(T12));
    expect(ways.map((w) => [w.way, w.drives, w.driveBytes])).toEqual([
      ["replace", 10, T20],
      ["group", 10, T12],
      ["widen", 1, T12],
    ]);
    const [replace, group, widen] = ways;
    expect(replace!.after / replace!.before).toBeCloseTo(20 / 12, 1);
    expect(group!.after / group!.before).toBeCloseTo(2, 1);
    // By the share of parity of ten drives, of which the pool goes on counting.
    expect(widen!.after / widen!.before).toBeCloseTo(11 / 10, 9);
    expect(group!.seconds).toBeNull();
    // Ten half-full drives, one after the other, at 60 % of 180 MB/s.
    expect(replace!.seconds!.likely).toBeCloseTo((10 * T12 * 0.5) / (180e6 * 0.6), 0);
    expect(replace!.seconds!.late).toBeCloseTo(replace!.seconds!.likely * 3, 0);
  });

  it("exchanges only those that are smaller, and keeps the larger one that is there", () => {
    const [replace] = grown(layout("raidz2", [range(4)]), [T12, T12, T12, T20]);
    expect(replace).toMatchObject({ way: "replace", drives: 3 });
    expect(grown(layout("raidz2", [range(4)]), Array<number>(4).fill(T20)).map((w) => w.way)).toEqual([
      "group",
      "widen",
    ]);
  });

  it.each<[string, Layout, number, string[]]>([
    ["single drives by groups alone", layout("stripe", [[0], [1]]), 2, ["group"]],
    ["mirrors by larger drives and groups", layout("mirror", [[0, 1]]), 2, ["replace", "group"]],
    [
      "two groups of raidz not by one drive",
      layout("raidz1", [range(3), range(3, 3)]),
      6,
      ["replace", "group"],
    ],
    [
      "an array with parity by larger drives and by one more",
      layout(6, [range(6)], "md"),
      6,
      ["replace", "widen"],
    ],
    ["an array of copies by larger drives", layout(1, [[0, 1]], "md"), 2, ["replace"]],
    ["a virtual drive by larger drives", layout(5, [range(4)], "RAID controller"), 4, ["replace"]],
    ["an array without copies not at all", layout(0, [range(2)], "md"), 2, []],
  ])("%s", (_, of, n, ways) => {
    const found = grown(of, Array<number>(n).fill(T12));
    expect(found.map((w) => w.way)).toEqual(ways);
    expect(found.every((w) => w.after > w.before)).toBe(true);
  });

  it("copies all of an array, however full it is", () => {
    const sizes = Array<number>(4).fill(T12);
    const of = (full: number, school: string, type: string | number) =>
      grown(layout(type, [range(4)], school), sizes, { full })[0]!.seconds!.likely;
    expect(of(10, "md", 5)).toBe(of(90, "md", 5));
    expect(of(90, "ZFS", "raidz1")).toBeGreaterThan(8 * of(10, "ZFS", "raidz1"));
  });
});
