import { beforeEach, expect, it, vi } from "vitest";

vi.mock("next/navigation", () => ({ usePathname: () => "/" }));
const { keptOver, keptText, valueOf } = await import("./use-kept");

/** A tab's storage with room for so many characters. */
function storage(room: number) {
  const own = new Map<string, string>();
  return {
    getItem: (key: string) => own.get(key) ?? null,
    removeItem: (key: string) => void own.delete(key),
    setItem(key: string, text: string) {
      if (text.length > room) throw new Error("quota");
      own.set(key, text);
    },
  };
}
beforeEach(() => vi.stubGlobal("sessionStorage", storage(10)));

it("keeps a text until it is given up, and what has no room for as long as the page lives", () => {
  keptText.write("a", "short");
  keptText.write("b", "x".repeat(11));
  expect([keptText.read("a"), keptText.read("b"), keptText.read("c")]).toEqual([
    "short",
    "x".repeat(11),
    null,
  ]);
  keptText.write("b", "fits");
  keptText.write("a", null);
  expect([keptText.read("a"), keptText.read("b")]).toEqual([null, "fits"]);
});

it("puts what was typed over nothing but what it was typed over", () => {
  const text = JSON.stringify({ over: '"shelf 2"', value: "shelf 3" });
  expect(keptOver(text, '"shelf 2"')).toEqual({ own: "shelf 3" });
  expect(keptOver(text, '"shelf 4"')).toEqual({ other: "shelf 3" });
  expect([keptOver(null, '""'), keptOver('"a text of before"', '""')]).toEqual([null, null]);
});

it("takes what cannot be read for nothing", () => {
  expect(valueOf('{"a":1}', null)).toEqual({ a: 1 });
  expect(valueOf("{a", "begun")).toBe("begun");
  expect(valueOf(null, "begun")).toBe("begun");
});
