import { describe, expect, it } from "vitest";
import { nearestWord, nearQuery, wordsIn } from "./near";

const VOCABULARY = wordsIn([
  "Works management 10.61.10.0/24",
  "wrk-hv2 OST-R114",
  "Tussock Host 5, storage",
  "02:61:0a:00:16:02",
]);

describe("a word that was typed with a slip", () => {
  it.each([
    ["wkr-hv2", "wrk-hv2"],
    ["storge", "storage"],
    ["managment", "management"],
    ["tusock", "tussock"],
    ["hst", null],
    ["10.61.10.9", null],
    ["02:61:0a:00:16:03", null],
    ["elsewhere", null],
  ])("%s is %s", (typed, meant) => expect(nearestWord(typed, VOCABULARY)).toBe(meant));

  it("is replaced, and the words that stand somewhere stay", () => {
    expect(nearQuery(["works", "managment"], VOCABULARY)).toEqual(["works", "management"]);
    expect(nearQuery(["manage"], VOCABULARY)).toBeNull();
    expect(nearQuery(["nowhere%"], VOCABULARY)).toBeNull();
  });
});
