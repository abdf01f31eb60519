import { expect, it } from "vitest";
import { questionSchema, REMARK_CODES, remarksOn, searchLayouts, type Question, type Remark } from ".";

function remarks(question: Partial<Question>, name: string): Remark[] {
  const asked = questionSchema.parse({ survive: 0, ...question });
  const found = searchLayouts(asked);
  if (!found.ok) throw new Error(found.problems[0]?.message);
  const { candidates } = found.value;
  return remarksOn(
    candidates.find((c) => c.name === name)!,
    candidates,
    asked,
  );
}
const codes = (question: Partial<Question>, name: string) => remarks(question, name).map((r) => r.code);

/** For each remark: what makes it, and the nearest that does not. */
const CASES: [Remark["code"], RegExp, [Partial<Question>, string], [Partial<Question>, string]][] = [
  [
    "unreadable",
    /the rebuild meets an unreadable sector with a probability of 37 %/,
    [{ drives: "5x18T" }, "raidz1 of 5"],
    [{ drives: "5x18T" }, "raidz2 of 5"],
  ],
  [
    "odd",
    /without 1 of these drives the usable capacity would be larger, 73\.0 TB/,
    [{ drives: "12x8T 1x6T" }, "raidz2 of 13"],
    [{ drives: "13x8T" }, "raidz2 of 13"],
  ],
  ["wide", /all 13 drives/, [{ drives: "13x8T" }, "raidz2 of 13"], [{ drives: "12x8T" }, "raidz2 of 12"]],
  ["copies", /A fourth copy/, [{ drives: "4x4T" }, "mirror of 4"], [{ drives: "4x4T" }, "mirror of 3"]],
  [
    "padding",
    /Volumes with 16 KiB blocks use 1\.14 times their size on groups of this width/,
    [{ drives: "12x8T", use: "guests" }, "raidz2 of 12"],
    [{ drives: "6x8T", use: "guests" }, "raidz2 of 6"],
  ],
  [
    "spare",
    /No hot spare and no free bay/,
    [{ drives: "6x4T" }, "raidz2 of 6"],
    [{ drives: "6x4T", spares: 1 }, "raidz2 of 5, 1 spare"],
  ],
  ["long", /takes \d/, [{ drives: "6x18T" }, "raidz2 of 6"], [{ drives: "6x4T" }, "raidz2 of 6"]],
  [
    "full",
    /Above 80 %/,
    [{ drives: "6x4T", full: 90 }, "raidz2 of 6"],
    [{ drives: "6x4T", full: 80 }, "raidz2 of 6"],
  ],
];

it.each(CASES)(
  "%s is told where it is so, and not elsewhere",
  (code, words, [question, name], [other, silent]) => {
    expect(remarks(question, name).find((r) => r.code === code)?.text).toMatch(words);
    expect(codes(other, silent)).not.toContain(code);
  },
);

it("each has a case, and cautions stand before notes", () => {
  expect(CASES.map(([code]) => code)).toEqual(REMARK_CODES);
  const severities = remarks({ drives: "12x8T 1x6T", full: 90 }, "raidz2 of 13").map((r) => r.severity);
  expect(severities).toEqual(severities.toSorted());
  expect(codes({ drives: "13x8T", use: "bulk files" }, "md RAID6 of 13")).toEqual(["spare", "long"]);
});
