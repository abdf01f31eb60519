import { describe, expect, it } from "vitest";
import { fillTemplate, NestingCount, nestingOf, parseJson, placeholdersOf, shown } from ".";

describe("parseJson", () => {
  it("tells where a text is cut off", () => {
    expect(parseJson('{\n "a": [1, 2')).toMatchObject({
      ok: false,
      problems: [{ message: expect.stringContaining("truncated"), line: 2, column: 12 }],
    });
  });

  it("points at the wrong character with a caret", () => {
    const result = parseJson('{\n  "a": ?\n}');
    expect(result).toMatchObject({ ok: false, problems: [{ line: 2, column: 8 }] });
    expect(!result.ok && result.problems[0]?.excerpt).toBe('  "a": ?\n       ^');
  });

  it.each(["", "<html>", "\u0000", "[1,]"])("refuses %j with a place", (text) => {
    const result = parseJson(text);
    expect(!result.ok && result.problems[0]?.line).toBe(1);
  });
});

it("fills templates and says what is not decided", () => {
  expect(placeholdersOf("{host.name} at {host.address}, {host.name}")).toEqual(["host.name", "host.address"]);
  expect(fillTemplate("ssh {account.admin}@{host.name}", { "host.name": "wrk-hv1" })).toBe(
    "ssh (not decided)@wrk-hv1",
  );
});

it("shows any value to a person", () => {
  expect([true, null, ["a", 2], { at: "x", none: null }, []].map(shown)).toEqual([
    "yes",
    "–",
    "a, 2",
    "at x",
    "–",
  ]);
});

describe("how deep and how many-parted a JSON text is", () => {
  const most = { depth: 100, parts: 1000 };
  const cases: [string, string, { depth: number; parts: number }][] = [
    ["a value", "12", { depth: 0, parts: 0 }],
    ["an object in a list", '[{"a":1,"b":[2,3]}]', { depth: 3, parts: 5 }],
    ["signs in strings do not count", '{"a":"[[[,,,{{","b":"\\"[[\\\\"}', { depth: 1, parts: 2 }],
    ["a string that does not end", '["abc, [[[', { depth: 1, parts: 1 }],
    ["it stops at what is too deep", "[".repeat(5000), { depth: 101, parts: 101 }],
    ["it stops at what has too many parts", `[${"1,".repeat(5000)}1]`, { depth: 1, parts: 1001 }],
  ];
  it.each(cases)("%s", (_, text, nesting) => expect(nestingOf(text, most)).toEqual(nesting));

  it.each(cases)("%s, in pieces of any length", (_, text, nesting) => {
    const bytes = new TextEncoder().encode(text);
    for (const length of [1, 2, 3, 7]) {
      const count = new NestingCount(most);
      for (let at = 0; at < bytes.length; at += length) count.add(bytes.subarray(at, at + length));
      expect(count.nesting, `pieces of ${length}`).toEqual(nesting);
      expect(count.exceeded).toBe(nesting.depth > most.depth || nesting.parts > most.parts);
    }
  });

  it("brackets by the million are refused unread, and said to be so", () => {
    const read = parseJson("[".repeat(10_000_000));
    expect(!read.ok && read.problems[0]?.message).toBe(
      "this JSON is nested more than 100 levels deep, which no tool writes; it was not read",
    );
    const wide = parseJson(`[${"[],".repeat(600_000)}[]]`);
    expect(!wide.ok && wide.problems[0]?.message).toContain("has more than 500000 parts");
  });
});
