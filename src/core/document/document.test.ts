import { describe, expect, it } from "vitest";
import { z } from "zod";
import {
  applyEditsTo,
  defineDocument,
  fieldChange,
  readDocument,
  takenBack,
  unseenTexts,
  upgraded,
  valueAt,
} from ".";

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
      problems: [
        "it was written by a later version of Derrick: a rack of version 4; this one supports version 3",
      ],
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

describe("a change at a path", () => {
  const document = {
    name: "a",
    link: null,
    rows: [{ id: 1, at: { x: 1, list: [{ y: 2 }] } }, { id: 2 }],
    deep: { rows: [7, 8] },
  };
  it.each<[string, unknown, string, unknown]>([
    ["name", "b", "name", "b"],
    ["rows", [], "rows", []],
    ["rows.1.id", 3, "rows", [document.rows[0], { id: 3 }]],
    ["rows.0.at.x", 9, "rows", [{ id: 1, at: { x: 9, list: [{ y: 2 }] } }, { id: 2 }]],
    ["rows.0.at.list.0.y", 9, "rows", [{ id: 1, at: { x: 1, list: [{ y: 9 }] } }, { id: 2 }]],
    ["deep.rows.1", 9, "deep.rows", [7, 9]],
    ["rows.5.id", 9, "rows", document.rows],
    ["rows.1.none", 9, "rows", document.rows],
  ])("%s = %j is a change of a field", (path, value, field, after) => {
    const frozen = structuredClone(document);
    expect(fieldChange(document, path, value)).toEqual([field, after]);
    expect(document).toEqual(frozen);
  });

  it("what it leads to is read through lists, and nothing that is inherited", () =>
    expect(
      ["rows.0.at.list.0.y", "deep.rows.1", "rows.x.id", "rows.length", "link.x", "constructor"].map((p) =>
        valueAt(document, p),
      ),
    ).toEqual([2, 8, undefined, undefined, undefined, undefined]));

  it("is applied to a copy, refused where there is no such field or it does not fit, and taken back while it stands", () => {
    const kind = { kind: "rack", schema: shape };
    const sound = shape.parse(now);
    const edit = { path: "count", before: 1, after: 2 };
    expect(applyEditsTo(kind, sound, [edit])).toMatchObject({ ok: true, value: { ...now, count: 2 } });
    expect(applyEditsTo(kind, sound, [{ ...edit, path: "size" }])).toMatchObject({
      problems: [{ message: "the rack has no field size" }],
    });
    expect(applyEditsTo(kind, sound, [{ ...edit, after: "two" }])).toMatchObject({ ok: false });
    expect(takenBack({ count: 2 }, [edit])).toMatchObject({
      ok: true,
      value: [{ path: "count", before: 2, after: 1 }],
    });
    expect(takenBack({ count: 3 }, [edit])).toMatchObject({ ok: false });
  });
});

describe("what no stored text holds", () => {
  const bay = defineDocument({
    kind: "rack",
    version: 1,
    schema: z.object({ schemaVersion: z.literal(1), bay: z.string(), notes: z.string() }),
    upgrades: {},
  });
  it.each([
    ["the end of a line", "0\n%post", "bay: it must be one line, without line breaks"],
    ["NUL", "0\0", "bay: it contains an invisible character (U+0000)"],
    ["a mark that turns the direction", "0\u202e9", "bay: it contains an invisible character (U+202E)"],
    ["half of a pair", "0\ud800", "bay: it contains an invisible character (U+D800)"],
    ["another end of a line", "0\u2028", "bay: it contains an invisible character (U+2028)"],
  ])("%s is refused with its place, read or written", (_, text, problem) => {
    const document = { schemaVersion: 1, bay: text, notes: "" };
    expect(readDocument(bay, document)).toEqual({ ok: false, problems: [problem] });
    const edit = { path: "bay", before: "", after: text };
    expect(applyEditsTo(bay, { ...document, bay: "" } as never, [edit])).toEqual({
      ok: false,
      problems: [{ message: problem }],
    });
  });

  it("but sentences have lines, and nothing else that is not seen", () => {
    expect(unseenTexts({ notes: "one\n\ttwo", deep: [{ reason: "a\nb" }] })).toEqual([]);
    expect(unseenTexts({ notes: "a\0b\rc" })).toHaveLength(1);
    expect(unseenTexts({ deep: [{ name: "a\tb" }] })).toEqual([
      "deep.0.name: it contains an invisible character (U+0009)",
    ]);
    expect(unseenTexts({ any: "a\nb" }, "anywhere")).toEqual([]);
  });
});
