import { readdirSync, readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import { editProfileYaml, parseProfileYaml, type Profile } from ".";

const files = readdirSync("profiles").map((name) => readFileSync(`profiles/${name}`, "utf8"));
const parsed = (text: string): Profile => {
  const read = parseProfileYaml(text);
  if (!read.ok) throw new Error(JSON.stringify(read.problems));
  return read.value;
};
const yaml = files.find((f) => f.includes("profile: hopper-backup"))!;
const before = parsed(yaml);

describe("a profile changed in the form", () => {
  it.each(files.map((f) => [f.split("\n")[0]!, f]))(
    "%s: no change gives a text that says the same",
    (_, text) => {
      expect(parsed(editProfileYaml(text, parsed(text)))).toEqual(parsed(text));
    },
  );

  it.each<[string, Partial<Profile>]>([
    ["a name", { name: "Hopper Deep" }],
    ["a number inside", { requirements: { ...before.requirements, cores: { least: 4, recommended: 8 } } }],
    ["a screen's time", { screens: before.screens.map((s, i) => (i === 2 ? { ...s, late: 999 } : s)) }],
    ["a screen less", { screens: before.screens.filter((s) => s.id !== "language") }],
    ["screens in another order", { firstBoot: [...before.firstBoot].reverse() }],
    ["a default that was not written", { secureBoot: "must be off" }],
    ["a list emptied", { consoleKeys: [] }],
    [
      "a text of several lines with quotes",
      { passwords: { ...before.passwords, words: 'one\n"two": {three} # four' } },
    ],
  ])("keeps %s, and the comment at its head", (_, changes) => {
    const edited = { ...before, ...changes };
    const text = editProfileYaml(yaml, edited);
    expect(parsed(text)).toEqual(edited);
    expect(text.split("\n")[0]).toBe(yaml.split("\n")[0]);
  });

  it("writes a text that cannot be read anew", () => {
    expect(parsed(editProfileYaml("a: [", before))).toEqual(before);
  });
});
