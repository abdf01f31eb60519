import { expect, it } from "vitest";
import { aBuild, shippedProfile } from "../../../tests/support/builds";
import { seeded } from "../../../tests/support/random";
import { answerFileOf } from ".";
import { linePairs, shortened } from "./differ";

const linesOf = (sheet: Record<string, unknown>) => {
  const told = answerFileOf(aBuild({ profile: shippedProfile("lowland-server-7"), sheet }));
  if (told.kind !== "file") throw new Error(JSON.stringify(told));
  return told.file.lines;
};

it("two machines of one plan differ in the lines of their own names and addresses only", () => {
  const pairs = linePairs(
    linesOf({}),
    linesOf({ "answers.hostName": "wrk-hv2", "network.address": "10.61.10.21" }),
  );
  const differ = pairs.filter(({ same }) => !same);
  expect(differ.map(({ here, there }) => [here?.from, there?.text.match(/hv2|10\.61\.10\.21/)?.[0]])).toEqual(
    [
      [null, "hv2"],
      ["network.address", "10.61.10.21"],
      ["answers.hostName", "hv2"],
    ],
  );
  expect(shortened(pairs).filter((pair) => pair === null).length).toBeGreaterThan(0);
});

it("both files come back whole, whatever differs", () => {
  const random = seeded(5);
  const some = () =>
    Array.from({ length: Math.floor(random() * 12) }, () => ({
      text: "abcd"[Math.floor(random() * 4)]!,
      from: null,
    }));
  for (let i = 0; i < 500; i += 1) {
    const [here, there] = [some(), some()];
    const pairs = linePairs(here, there);
    const sideOf = (side: "here" | "there") => pairs.flatMap((p) => p[side]?.text ?? []);
    expect(sideOf("here")).toEqual(here.map((l) => l.text));
    expect(sideOf("there")).toEqual(there.map((l) => l.text));
    for (const { same, here: a, there: b } of pairs) expect(same).toBe(a?.text === b?.text);
  }
});

it("where nothing differs, nothing but one gap is shown", () => {
  const pairs = linePairs(linesOf({}), linesOf({}));
  expect(shortened(pairs)).toEqual([null]);
});
