import { describe, expect, it } from "vitest";
import { fitsPattern, hostNameProblem, namePatternProblem, nextName, patternOf } from ".";

describe("a pattern for host names", () => {
  it.each([
    ["wrk-hv#", null],
    ["tho-@", null],
    ["rack##-a", null],
    ["", /no counter/],
    ["wrk-hv", /no counter/],
    ["a#-b#", /more than one counter/],
    ["a#@", /more than one counter/],
    ["a#####", /more than 4 digits/],
    ["-a#", /hyphen/],
    ["a b#", /only letters/],
    ["a.b#", /enter the domain in its own field/],
    [`${"a".repeat(63)}#`, /64 characters/],
  ])("%s", (pattern, words) => {
    const problem = namePatternProblem(pattern);
    if (words === null) expect(problem).toBeNull();
    else expect(problem).toMatch(words);
  });

  it("knows its own names, and no others", () => {
    for (const [pattern, name, fits] of [
      ["wrk-hv#", "wrk-hv1", true],
      ["wrk-hv#", "WRK-HV12", true],
      ["wrk-hv#", "wrk-hv01", false],
      ["wrk-hv#", "wrk-hv0", false],
      ["wrk-hv#", "wrk-hv", false],
      ["wrk-hv#", "wrk-hv1x", false],
      ["rack##", "rack07", true],
      ["rack##", "rack7", false],
      ["rack##", "rack100", true],
      ["tho-@", "tho-b", true],
      ["tho-@", "tho-bb", false],
      ["ab#ba", "aba", false],
      ["no pattern", "no pattern", false],
    ] as const)
      expect([pattern, name, fitsPattern(pattern, name)]).toEqual([pattern, name, fits]);
  });

  it("gives the first name that nobody has, which is a host name and one of its own", () => {
    expect(nextName("wrk-hv#", ["WRK-HV1", "wrk-hv3", "wrk-hv1.works.example"])).toBe("wrk-hv2");
    expect(nextName("tho-@", ["tho-a", "tho-b"])).toBe("tho-c");
    expect(
      nextName(
        "rack##",
        Array.from({ length: 99 }, (_, i) => `rack${String(i + 1).padStart(2, "0")}`),
      ),
    ).toBe("rack100");
    expect(
      nextName(
        "tho-@",
        [..."abcdefghijklmnopqrstuvwxyz"].map((l) => `tho-${l}`),
      ),
    ).toBeNull();
    expect(nextName("x", [])).toBeNull();
    // The longest of them has no room for a second digit.
    const long = `${"a".repeat(62)}#`;
    const nine = Array.from({ length: 9 }, (_, i) => `${"a".repeat(62)}${i + 1}`);
    expect([nextName(long, nine.slice(0, 8)), nextName(long, nine)]).toEqual([nine[8], null]);
    for (const pattern of ["wrk-hv#", "tho-@", "a##b"]) {
      const taken: string[] = [];
      for (let i = 0; i < 30; i += 1) {
        const next = nextName(pattern, taken);
        if (next === null) break;
        expect([hostNameProblem(next), fitsPattern(pattern, next), taken.includes(next)]).toEqual([
          null,
          true,
          false,
        ]);
        taken.push(next);
      }
      expect(taken.length).toBeGreaterThan(20);
    }
  });

  it("of a role goes before that of every machine", () => {
    const naming = [
      { role: null, pattern: "m#" },
      { role: "storage", pattern: "st#" },
    ];
    expect([
      patternOf(naming, "storage"),
      patternOf(naming, "bench"),
      patternOf(naming, null),
      patternOf([], "bench"),
    ]).toEqual(["st#", "m#", "m#", null]);
  });
});
