import { describe, expect, it } from "vitest";
import { z } from "zod";
import { defineDocument } from "@/core/document";
import { DamagedError, readStored, sound, StoredText, toStore, UnsoundError } from "./document";

let parses = 0;
const schema = z.object({ schemaVersion: z.literal(1), names: z.array(z.string()) }).transform((value) => {
  parses += 1;
  return value;
});
const site = defineDocument({ kind: "site", version: 1, schema, upgrades: {} });
const stored = (...names: unknown[]) => new StoredText(JSON.stringify({ schemaVersion: 1, names }));

describe("a stored document", () => {
  it("is read once while its text is the same, and again when it is another", () => {
    const first = readStored(site, "s-1", stored("a"));
    parses = 0;
    expect(readStored(site, "s-1", stored("a"))).toBe(first);
    expect(parses).toBe(0);
    expect(readStored(site, "s-1", stored("b")).names).toEqual(["b"]);
    expect(readStored(site, "s-2", stored("a"))).not.toBe(first);
    expect(parses).toBe(2);
  });

  it("cannot be changed by one of those who get it", () => {
    const { names } = readStored(site, "s-3", stored("a"));
    expect(() => names.push("b")).toThrow(TypeError);
    expect(readStored(site, "s-3", stored("a")).names).toEqual(["a"]);
  });

  it.each([
    ["no JSON", new StoredText('{"schemaVersion":1,'), "not JSON"],
    ["another shape", stored(7), "names.0"],
  ])("of %s is damaged, is named, and spoils no list", (_, text, problem) => {
    readStored(site, "s-4", stored("a"));
    expect(() => readStored(site, "s-4", text)).toThrow(DamagedError);
    expect(() => readStored(site, "s-4", text)).toThrow(problem);
    expect(sound([text, stored("b")], (t) => readStored(site, "s-4", t).names)).toEqual([["b"]]);
  });

  it("is not written when it would not be read again", () => {
    expect(toStore(site, { schemaVersion: 1, names: ["a"], more: 1 })).toEqual({
      schemaVersion: 1,
      names: ["a"],
    });
    expect(() => toStore(site, { schemaVersion: 1, names: [1] })).toThrow(UnsoundError);
  });
});
