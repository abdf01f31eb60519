import { describe, expect, it } from "vitest";
import { z } from "zod";
import { defineDocument, readDocument, upgraded } from ".";

const upgrades = {
  1: (old: Record<string, unknown>) => ({ schemaVersion: 2, names: [old.name] }),
  2: (old: Record<string, unknown>) => ({ ...old, schemaVersion: 3, count: (old.names as unknown[]).length }),
};
const shape = z.object({ schemaVersion: z.literal(3), names: z.array(z.string()), count: z.number() });
const rack = defineDocument({ kind: "rack", version: 3, schema: shape, upgrades });
const now = { schemaVersion: 3, names: ["a"], count: 1 };

describe("a document of any version", () => {
  const cases: [string, unknown][] = [
    ["the first", { schemaVersion: 1, name: "a" }],
    ["the second", { schemaVersion: 2, names: ["a"] }],
    ["the present one", now],
  ];
  it.each(cases)("%s reads as the present shape", (_, stored) => {
    expect(readDocument(rack, stored)).toEqual({ ok: true, value: now });
    expect(upgraded(upgrades, shape).parse(stored)).toEqual(now);
  });

  it("a later one is not guessed at", () =>
    expect(readDocument(rack, { ...now, schemaVersion: 4 })).toEqual({
      ok: false,
      problems: ["a later Derrick wrote it: it is a rack of version 4, and this one knows 3"],
    }));

  it.each([
    ["no object", 7, "the document: "],
    ["no version", { names: [] }, "schemaVersion: "],
    ["a wrong part", { ...now, names: ["a", 2] }, "names.1: "],
    ["what an upgrade makes wrong", { schemaVersion: 1, name: 3 }, "names.0: "],
  ])("%s is a problem with its place", (_, stored, place) => {
    const read = readDocument(rack, stored);
    expect(!read.ok && read.problems[0]!.startsWith(place), JSON.stringify(read)).toBe(true);
  });

  it("an upgrade that is missing is noticed where the kind is defined", () =>
    expect(() => defineDocument({ ...rack, upgrades: { 1: upgrades[1] } })).toThrow(
      "no upgrade from version 2",
    ));

  it("an upgrade that does not move on ends", () =>
    expect(upgraded({ 1: (old) => old }, z.unknown()).parse({ schemaVersion: 1 })).toEqual({
      schemaVersion: 1,
    }));
});
