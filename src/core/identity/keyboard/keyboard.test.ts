import { readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import { z } from "zod";
import { layoutSchema, pressWords, readAs, typeOn, waysToType } from ".";

// What passwords become between two layouts, measured with the library that reads real layouts, is compared in tests/truth.
const { layouts } = z
  .object({ layouts: z.record(z.string(), layoutSchema) })
  .parse(JSON.parse(readFileSync("tests/fixtures/keyboard/keyboard-tables.json", "utf8")));
const layout = (name: string) => layouts[name]!;
const names = Object.keys(layouts);
const ASCII = Array.from({ length: 95 }, (_, i) => String.fromCharCode(32 + i)).join("");

/** What is stored of the presses that type a text on one layout, when the program assumes another. */
const stored = (text: string, physical: string, assumed: string) => {
  const typed = typeOn(layout(physical), text);
  return typed.ok ? readAs(layout(assumed), typed.value) : typed.problems[0]!.message;
};

describe.each(names)("the layout %s", (name) => {
  it("types every ASCII character, and reads back what it typed", () =>
    expect(stored(ASCII, name, name)).toEqual({
      text: ASCII,
      altPresses: 0,
      withoutSymbol: 0,
      deadPending: false,
    }));

  it("reads a text that another one typed as something, for every other one", () => {
    for (const other of names) expect(typeof stored("plain-Text_9", name, other)).toBe("object");
  });
});

it("letters with marks go through dead keys where no key makes them", () => {
  const typed = typeOn(layout("ch"), "ê^");
  expect(typed.ok && typed.value.map(pressWords)).toEqual(["AE12", "AD03", "AE12", "SPCE"]);
  expect(stored("ê", "ch", "us")).toMatchObject({ text: "=e" });
});

it("a character that the keyboard cannot type is named", () =>
  expect(stored("Grün", "us", "de")).toBe("this keyboard cannot type ü"));

it("AltGr on a layout without one is a shortcut and types nothing", () =>
  expect(stored("a@b", "de", "us")).toEqual({
    text: "ab",
    altPresses: 1,
    withoutSymbol: 0,
    deadPending: false,
  }));

it("a dead key at the end waits for what never comes", () =>
  expect(stored("a=", "us", "ch")).toMatchObject({ text: "a", deadPending: true }));

it("the same dead key twice makes its sign, and one that the next key does not fit takes it along", () => {
  expect(stored("==", "us", "ch")).toMatchObject({ text: "^" });
  expect(stored("=q", "us", "ch")).toMatchObject({ text: "" });
});

it("all ways to a character are named in the order of the keys", () =>
  expect(waysToType(layout("gb"), "@").map(pressWords)).toEqual(["AltGr+AD01", "Shift+AC11"]));
