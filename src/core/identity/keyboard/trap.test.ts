import { describe, expect, it } from "vitest";
import { layouts, movedCharacters, sameOnAll, trapOf, typeToGet, xkbNames } from ".";

const of = (name: string) => layouts().get(name)!;
const between = (sends: string, reads: string) => ({ sends: of(sends), reads: of(reads) });
const PRINTABLE = Array.from({ length: 95 }, (_, i) => String.fromCharCode(32 + i)).join("");

it("ships the layouts of Debian's data, those with a variant under a name of their own", () => {
  expect(layouts().size).toBeGreaterThanOrEqual(19);
  expect(xkbNames("ch-fr")).toEqual({ layout: "ch", variant: "fr" });
  expect(xkbNames("toString")).toEqual({ layout: "toString", variant: "" });
  for (const [name, { layout, variant }] of layouts()) expect(xkbNames(name)).toEqual({ layout, variant });
});

describe.each([...layouts().keys()])("%s", (name) => {
  it("types all of ASCII that its keys have, and then reads it back", () =>
    expect(movedCharacters(between(name, name)).filter(({ becomes }) => becomes !== "")).toEqual([]));

  it("what was stored is typed again, whichever layout was assumed", () => {
    for (const other of layouts().keys()) {
      const trap = trapOf("Zinc-lamp.42", between(name, other));
      if (trap.kind === "untypable" || trap.stored.text === "") continue;
      const again = typeToGet(trap.stored.text, between(name, other));
      const back = again === null ? null : trapOf(again, between(name, other));
      expect(back === null || (back.kind === "typed" && back.stored.text === trap.stored.text)).toBe(true);
    }
  });
});

it("names what moves between a German keyboard and an installer that assumes the American one", () => {
  const moved = movedCharacters(between("de", "us"));
  expect(moved).toContainEqual({ character: "z", becomes: "y" });
  expect(moved).toContainEqual({ character: "@", becomes: "" });
  expect(moved.some(({ character }) => character === "a")).toBe(false);
});

it("tells what was stored, and what to type to log in with it once the layout is right", () => {
  expect(trapOf("Zebra-York_1", between("us", "de"))).toMatchObject({
    kind: "typed",
    same: false,
    stored: { text: "Yebra\u00dfZork?1" },
  });
  // The installer took the keys for a German keyboard's; later the system reads them as what they are.
  expect(typeToGet("Yebra", between("us", "us"))).toBe("Yebra");
  expect(typeToGet("ß", between("us", "us"))).toBeNull();
});

it("names the characters that a keyboard has not", () =>
  expect(trapOf("Grün🐎", between("us", "us"))).toEqual({ kind: "untypable", missing: ["ü", "🐎"] }));

it.each([1, 8, 127, 200])("a password of %i characters comes out with all of them", (length) => {
  const text = PRINTABLE.repeat(3).slice(0, length);
  expect(trapOf(text, between("gb", "gb"))).toMatchObject({ same: true, stored: { text } });
});

it("what is the same on all layouts comes out the same between any two of them", () => {
  const names = ["us", "de", "fr", "gb"];
  const same = [...sameOnAll(names.map(of))].join("");
  expect(same).toContain("e");
  expect(same).not.toMatch(/[aqzwym@]/);
  for (const sends of names)
    for (const reads of names) expect(trapOf(same, between(sends, reads))).toMatchObject({ same: true });
});
