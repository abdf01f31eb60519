import fc from "fast-check";
import { describe, expect, it } from "vitest";
import {
  benchQuery,
  consequence,
  fromQuery,
  parseDrives,
  poolPartition,
  questionSchema,
  redundancyOf,
  searchLayouts,
  SMALL_SHARE,
  standing,
  toQuery,
  type Judged,
  type Question,
} from ".";
import { aDrive } from "../../../../tests/support/builds";
import { survival } from "../reliability";

const ask = (question: Partial<Question>) => searchLayouts(questionSchema.parse(question));
function answer(question: Partial<Question>) {
  const found = ask(question);
  if (!found.ok) throw new Error(found.problems[0]?.message);
  return found.value;
}
const named = (question: Partial<Question>, name: string): Judged =>
  answer(question).candidates.find((c) => c.name === name)!;

describe("drives as they are typed", () => {
  it.each<[string, number, number]>([
    ["6x12T", 6, 12_000_138_625_024],
    ["2 x 480G", 2, 480_103_981_056],
    ["3×8TB", 3, 8_001_563_222_016],
    ["1x100GiB", 1, 107_374_182_400],
    ["20T", 1, 20_000_588_955_648],
    ["2x1.92T", 2, 1_920_383_410_176],
    ["64G", 1, 64e9],
  ])("%s are %d drives of %d bytes", (text, count, bytes) => {
    const read = parseDrives(text);
    expect(read.ok && [read.value.length, read.value[0]]).toEqual([count, bytes]);
  });

  it("may be of several sizes, and 6 x 12T stays one group", () => {
    const read = parseDrives("6 x 12T, 2x8T;1x6T");
    expect(read.ok && read.value.length).toBe(9);
  });

  it.each(["", "six", "0x4T", "1001x1T", "4x", "4x900P", "3x1K", "-2x4T", "2x4T oops"])(
    '"%s" is refused with its place',
    (text) => {
      const read = parseDrives(text);
      expect(read.ok).toBe(false);
      if (!read.ok)
        expect(read.problems[0]?.message).toMatch(
          /Enter drives as number x size|is not a group|the limit is|a drive size is/,
        );
    },
  );

  it("stand in the address and come back from it, whatever else stands there", () => {
    const question = questionSchema.parse({
      drives: "12x8T 1x6T",
      use: "guests",
      spares: 1,
      least: 4e13,
      afr: 0.03,
    });
    expect(fromQuery(new URLSearchParams(toQuery(question)))).toEqual(question);
    expect(toQuery(questionSchema.parse({}))).toBe("");
    const odd = fromQuery(new URLSearchParams("survive=99&use=fun&sector=1024&x=1&full=abc&spares=2"));
    expect(odd).toEqual(questionSchema.parse({ spares: 2 }));
  });
});

it("are those of a machine, without its sticks and cards, the larger ones first", () => {
  const drives = [
    aDrive("A", { media: "spinning", sizeBytes: 8_001_563_222_016 }),
    aDrive("B", { media: "spinning", sizeBytes: 12_000_138_625_024 }),
    aDrive("C", { media: "spinning", sizeBytes: 8_001_563_222_016 }),
    aDrive("D", { media: "usb", sizeBytes: 8e9 }),
    aDrive("E", { media: "spinning", missingSince: "2026-11-20T08:00:00Z" }),
  ];
  const question = fromQuery(new URLSearchParams(benchQuery(drives)!));
  expect(question).toMatchObject({
    drives: "1x12000138625024 2x8001563222016",
    media: "spinning",
    sector: 512,
  });
  const read = parseDrives(question.drives);
  expect(read.ok && read.value).toEqual([12_000_138_625_024, 8_001_563_222_016, 8_001_563_222_016]);
  expect(benchQuery([drives[3]!])).toBeNull();
});

describe("the layouts of a bench", () => {
  it("come down from raw to usable rung by rung, losing nothing twice and ending at what is told", () => {
    for (const drives of ["6x12T", "12x8T 1x6T", "4x480G 2x960G", "24x4T", "3x1T", "1x500G"])
      for (const { ladder, rawBytes, usableBytes, name } of answer({
        drives,
        survive: 0,
        spares: drives === "24x4T" ? 2 : 0,
      }).candidates) {
        let left = rawBytes;
        for (const rung of ladder) {
          expect(rung.lost, `${name}, ${rung.what}`).toBeGreaterThan(0);
          left -= rung.lost;
          expect(rung.left).toBeCloseTo(left, -1);
        }
        expect(usableBytes).toBe(ladder.at(-1)?.left ?? rawBytes);
      }
  });

  it("say what a pool of twelve drives of 20 TB really holds", () => {
    const { usableBytes, survival: s } = named({ drives: "12x20T" }, "raidz2 of 12");
    expect(usableBytes / 1e12).toBeCloseTo(182.7, 1);
    expect(s.worst).toBe(2);
    // What the pool tool made of a whole drive of 4 TB.
    expect(poolPartition(4_000_787_030_016, 512)).toBe(7_814_017_024 * 512);
  });

  it("call four drives in one mirror what they are", () => {
    const mirror = named({ drives: "4x4T", survive: 0 }, "mirror of 4");
    expect(consequence(mirror)).toMatch(/Tolerates any 3 drive failures/);
    expect(mirror.usableBytes / mirror.rawBytes).toBeLessThan(SMALL_SHARE);
    const striped = named({ drives: "4x4T", survive: 0 }, "4 single drives");
    expect(consequence(striped)).toMatch(/The first drive failure loses all data/);
  });

  it("tell of an odd drive what leaving it out costs, and what taking it in", () => {
    const [with13, with12] = ["raidz2 of 13", "raidz2 of 12"].map((n) => named({ drives: "12x8T 1x6T" }, n));
    expect(with13?.ladder.find((r) => r.what === "mixed")?.lost).toBe(
      12 * (8_001_563_222_016 - 6_001_175_126_016),
    );
    expect(with12?.ladder.find((r) => r.what === "out")?.lost).toBe(6_001_175_126_016);
    expect(with12!.usableBytes).toBeGreaterThan(with13!.usableBytes);
  });

  it("stand only where they do what is wished, and not behind a better one of their school", () => {
    const { candidates } = answer({ drives: "12x8T 1x6T", survive: 2, least: 5e13 });
    for (const c of candidates.filter((o) => o.folded === null)) {
      expect(c.survival.worst).toBeGreaterThanOrEqual(2);
      expect(c.usableBytes).toBeGreaterThanOrEqual(5e13);
    }
    const why = (test: RegExp) => candidates.some((c) => test.test(c.folded ?? ""));
    expect(
      [
        /tolerates only any 1 drive failure/,
        /no fault tolerance/,
        /less than the minimum usable capacity/,
        /equal or better in every/,
      ].map(why),
    ).toEqual([...[true, true, true, true]]);
    expect(candidates.findIndex((c) => c.folded !== null)).toBe(
      candidates.filter((c) => c.folded === null).length,
    );
  });

  it.each<[Partial<Question>, RegExp]>([
    [{ drives: "2x4T", spares: 1, free: 1 }, /none is left/],
    [{ drives: "200x4T" }, /200 drives are too many for one plan/],
    [{ drives: "lots" }, /"lots" is not a group of drives/],
  ])("that cannot be are told in words: %j", (question, words) => {
    const found = ask(question);
    expect(!found.ok && found.problems[0]?.message).toMatch(words);
  });

  it("are numbers in everything for any drives", () => {
    const sizes = fc.array(fc.tuple(fc.integer({ min: 1, max: 9 }), fc.integer({ min: 1, max: 30_000 })), {
      minLength: 1,
      maxLength: 3,
    });
    fc.assert(
      fc.property(sizes, fc.nat(2), fc.nat(2), (groups, spares, free) => {
        const found = ask({
          drives: groups.map(([n, g]) => `${n}x${g}G`).join(" "),
          spares,
          free,
          survive: 0,
        });
        for (const c of found.ok ? found.value.candidates : []) {
          expect(
            [c.usableBytes, c.loss, c.rebuild.late, c.unreadable, c.reads, c.writes].every(Number.isFinite),
          ).toBe(true);
          expect(c.usableBytes).toBeGreaterThanOrEqual(0);
          expect(c.usableBytes).toBeLessThanOrEqual(c.rawBytes);
        }
      }),
      { numRuns: 40 },
    );
  });
});

describe("a layout with failed drives", () => {
  const layout = (name: string, drives = "6x4T") => named({ drives, survive: 0 }, name).layout;
  it("says which drive must not be pulled now", () => {
    const pairs = layout("3 × mirror of 2");
    expect(standing(pairs, new Set([0]))).toEqual({ state: "degraded", mustStay: [1] });
    expect(standing(pairs, new Set([0, 1])).state).toBe("lost");
    expect(standing(layout("raidz2 of 6"), new Set([0, 1])).mustStay).toEqual([2, 3, 4, 5]);
    expect(standing(layout("md RAID10 of 5", "5x4T"), new Set([0])).mustStay.sort()).toEqual([1, 4]);
    expect(standing(layout("raidz2 of 6"), new Set())).toEqual({ state: "whole", mustStay: [] });
  });

  it("stands in exactly as many cases as are counted", () => {
    for (const c of answer({ drives: "6x4T", survive: 0 }).candidates.filter(
      (o) => o.layout.left.length === 0,
    )) {
      const rows = survival(redundancyOf(c.layout)).rows;
      for (let k = 0; k <= 3; k += 1) {
        let stands = 0;
        for (let set = 0; set < 64; set += 1) {
          const failed = new Set([0, 1, 2, 3, 4, 5].filter((i) => (set >> i) & 1));
          if (failed.size === k && standing(c.layout, failed).state !== "lost") stands += 1;
        }
        expect(stands, `${c.name}, ${k}`).toBe(Number(rows[k]?.survived ?? 0n));
      }
    }
  });
});
