import { uniformInt } from "pure-rand/distribution/uniformInt";
import { xoroshiro128plus } from "pure-rand/generator/xoroshiro128plus";
import { describe, expect, it } from "vitest";
import { dictionary } from "@zxcvbn-ts/language-common";
import { keptRules, kindsOf, passphrase, type PassphraseGround, type PasswordRules } from ".";
import { layouts, sameOnAll, trapOf } from "../keyboard";

const RULES: PasswordRules = { leastLength: 12, classes: 3, edgesCount: false, mayHoldName: false };
const kept = (text: string, rules = RULES) => keptRules(text, rules, "jpell").every((rule) => rule.kept);

describe("the rules of a family", () => {
  it.each([
    ["plum-4-tango-Oak", true],
    ["Plum-tango-oak4", false], // the only capital stands first, the only digit last
    ["plum4Jpell-oak", false], // the account's name, whatever its case
    ["pl-4T", false],
    ["", false],
  ])("%s", (text, fits) => expect(kept(text)).toBe(fits));

  it("count characters as people do, and letters of any alphabet as letters", () => {
    expect(keptRules("🐎🐎", { ...RULES, classes: 1 }, "")[0]?.words).toContain("it has 2");
    expect(kindsOf("éÉ", { edgesCount: true })).toEqual(["upper-case letters", "lower-case letters"]);
    expect(kindsOf("A1", { edgesCount: false })).toEqual([]);
  });

  it("a rule that a family has not is not shown", () =>
    expect(
      keptRules("x", { leastLength: 1, classes: 1, edgesCount: true, mayHoldName: true }, "x"),
    ).toHaveLength(1));
});

const words = [
  ...new Set(Object.values(dictionary).flatMap((list) => (Array.isArray(list) ? list : []))),
].map(String);
const generator = xoroshiro128plus(7);
const ground = (names: string[], rules: PasswordRules): PassphraseGround => ({
  words: words.filter((word) => /^[a-z]{3,}$/.test(word)),
  ...{ rules, account: "jpell", leastBits: 50 },
  allowed: sameOnAll(names.map((name) => layouts().get(name)!)),
  pick: (bound) => uniformInt(generator, 0, bound - 1),
});

describe("a passphrase", () => {
  it.each([
    { names: ["us"], rules: RULES },
    { names: ["us", "gb", "de"], rules: RULES },
    { names: ["us", "fr"], rules: { ...RULES, classes: 2, leastLength: 30 } },
  ])("of %j keeps the rules and comes out the same on all of the layouts", ({ names, rules }) => {
    for (let i = 0; i < 50; i += 1) {
      const made = passphrase(ground(names, rules));
      if (!made.ok) throw new Error(made.problems[0]?.message);
      expect(kept(made.value.text, rules)).toBe(true);
      expect(made.value.bits).toBeGreaterThanOrEqual(50);
      for (const sends of names)
        for (const reads of names)
          expect(
            trapOf(made.value.text, { sends: layouts().get(sends)!, reads: layouts().get(reads)! }),
          ).toMatchObject({ same: true });
    }
  });

  it("where the layouts have too few characters in common, none is made, and it says which kinds there are", () => {
    const made = passphrase(ground(["us", "fr"], { ...RULES, classes: 4 }));
    expect(made.ok ? "" : made.problems[0]?.message).toContain("choose fewer layouts");
  });

  it("without words it picks characters", () => {
    const made = passphrase({ ...ground(["us"], { ...RULES, edgesCount: true }), words: [] });
    expect(made.ok && made.value.text.length).toBeGreaterThanOrEqual(12);
  });
});
