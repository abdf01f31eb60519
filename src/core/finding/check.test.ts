import { describe, expect, it } from "vitest";
import { hit, message, rulesOver, runChecks } from ".";

const WORDS = {
  "cable.short": message("Short", "{cable} lacks {metres} m.", "Take {other}.", "It does not reach."),
};
type Ground = { metres: number };
const rule = rulesOver<Ground, "cable.length">()("E", WORDS);
const facts = { cable: "C7", metres: "2", other: "C8" };

it("says what a hit's facts fill into the words, and nothing where the rule is silent", () => {
  const check = rule("cable.short", ({ metres }) => (metres < 3 ? hit("stop", "cable.length", facts) : null));
  expect(runChecks([check], WORDS, { metres: 2 })).toMatchObject([
    { says: "C7 lacks 2 m.", remedy: "Take C8.", zone: "E", at: "cable.length", waivable: true },
  ]);
  expect(runChecks([check], WORDS, { metres: 3 })).toEqual([]);
});

it("lets no slip in a code, a fact or a place through the compiler", () => {
  // @ts-expect-error no words stand under this code
  rule("cable.shrot", () => null);
  // @ts-expect-error the words name {other}, and the hit has none
  rule("cable.short", () => hit("stop", "cable.length", { cable: "C7", metres: "2" }));
  // @ts-expect-error a cable has no colour on this sheet
  rule("cable.short", () => hit("stop", "cable.colour", facts));
  expect(() =>
    runChecks([rule("cable.short", () => hit("note", "cable.length", facts))], {}, { metres: 1 }),
  ).toThrow(/no words/);
});

describe("a fact that is told as a code", () => {
  const PHRASED = {
    "cable.end": message("End", "The end {state}.", "Look at {port}.", "It is in some port.", {
      state: { loose: "is loose", wrong: "is in {found}, and not in {port}" },
    }),
  };
  const phrased = rulesOver<Ground, "cable.length">()("E", PHRASED);
  const said = (facts: Parameters<typeof hit>[2]) => {
    const check = { code: "cable.end", zone: "E" as const, run: () => [hit("stop", "cable.length", facts)] };
    return runChecks([check], PHRASED, { metres: 1 })[0]!;
  };

  it("stands in the sentence as its phrase, filled with the other facts", () => {
    expect(said({ state: "wrong", port: "p1", found: "p2" })).toMatchObject({
      says: "The end is in p2, and not in p1.",
      remedy: "Look at p1.",
      // What a waiver is given for is what a person reads, and not the code.
      basis: "is in p2, and not in p1 | p1 | p2",
    });
    expect(said({ state: "loose", port: "p1" }).says).toBe("The end is loose.");
  });

  it("compiles with the codes of its phrases only, and with the facts that these name", () => {
    phrased("cable.end", () => hit("stop", "cable.length", { state: "loose", port: "p1" }));
    phrased("cable.end", ({ metres }) =>
      hit("stop", "cable.length", {
        port: "p1",
        ...(metres > 1 ? { state: "loose" } : { state: "wrong", found: "p2" }),
      }),
    );
    // @ts-expect-error there is no phrase of this code
    phrased("cable.end", () => hit("stop", "cable.length", { state: "losse", port: "p1" }));
    // @ts-expect-error a sentence is no code
    phrased("cable.end", () => hit("stop", "cable.length", { state: "is loose", port: "p1" }));
    // @ts-expect-error the remedy names {port}
    phrased("cable.end", () => hit("stop", "cable.length", { state: "loose" }));
  });
});
