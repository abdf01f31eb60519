import { expect, it } from "vitest";
import { hit, message, rulesOver, runChecks } from ".";

const WORDS = {
  "cable.short": message("Short", "{cable} lacks {metres} m.", "Take {other}.", "It does not reach."),
};
type Ground = { metres: number };
const rule = rulesOver<Ground, "cable.length">()(WORDS);
const facts = { cable: "C7", metres: "2", other: "C8" };

it("says what a hit's facts fill into the words, and nothing where the rule is silent", () => {
  const check = rule("cable.short", "E", ({ metres }) =>
    metres < 3 ? hit("stop", "cable.length", facts) : null,
  );
  expect(runChecks([check], WORDS, { metres: 2 })).toMatchObject([
    { says: "C7 lacks 2 m.", remedy: "Take C8.", zone: "E", at: "cable.length", waivable: true },
  ]);
  expect(runChecks([check], WORDS, { metres: 3 })).toEqual([]);
});

it("lets no slip in a code, a fact or a place through the compiler", () => {
  // @ts-expect-error no words stand under this code
  rule("cable.shrot", "E", () => null);
  // @ts-expect-error the words name {other}, and the hit has none
  rule("cable.short", "E", () => hit("stop", "cable.length", { cable: "C7", metres: "2" }));
  // @ts-expect-error a cable has no colour on this sheet
  rule("cable.short", "E", () => hit("stop", "cable.colour", facts));
  expect(() =>
    runChecks([rule("cable.short", "E", () => hit("note", "cable.length", facts))], {}, { metres: 1 }),
  ).toThrow(/no words/);
});
