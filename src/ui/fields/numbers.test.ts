import { describe, expect, it } from "vitest";
import { checkedText, numberField, wholeField } from "./numbers";

describe("a number in a field", () => {
  const megabits = numberField(1e6, "a number of Mbit/s");
  const milliseconds = numberField(1e-3, "ms");
  const vlan = wholeField("1 to 4094", (n) => n > 0 && n < 4095);

  it.each<[string, number | null | string]>([
    ["12", 12e6],
    ["0,5", 5e5],
    [" ", null],
    ["0", "a number of Mbit/s"],
    ["fast", "a number of Mbit/s"],
    ["Infinity", "a number of Mbit/s"],
  ])("reads %j as %j", (text, value) =>
    expect(megabits.parse(text)).toEqual(typeof value === "string" ? { problem: value } : { value }),
  );

  it.each(["12", "0.5", "2.4", "38", "1000"])("writes what it read: %s", (text) => {
    for (const field of [megabits, milliseconds]) {
      const read = field.parse(text);
      expect("value" in read && field.format(read.value)).toBe(text);
    }
  });

  it.each(["0", "4095", "1.5", "-1", "1e9", "ten"])("takes %s for no VLAN", (text) =>
    expect(vlan.parse(text)).toEqual({ problem: "1 to 4094" }),
  );

  it("may be left open", () => expect([vlan.parse(""), vlan.format(null)]).toEqual([{ value: null }, ""]));
});

it("a text that must fit is kept without the spaces around it, or not at all", () => {
  const even = checkedText((t) => t.length % 2 === 0, "an even number of letters");
  expect(even.parse(" ab ")).toEqual({ value: "ab" });
  expect(even.parse("abc")).toEqual({ problem: "an even number of letters" });
  expect(even.format(null)).toBe("");
});
