import { describe, expect, it } from "vitest";
import { fillTemplate, parseJson, placeholdersOf, shown } from ".";

describe("parseJson", () => {
  it("tells where a text is cut off", () => {
    expect(parseJson('{\n "a": [1, 2')).toMatchObject({
      ok: false,
      problems: [{ message: expect.stringContaining("cut off"), line: 2, column: 12 }],
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
