import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { newHistory, redone, typed, undone } from "./history";

describe("the history of a form", () => {
  it("takes a word that is typed letter by letter back at once, and another field's alone", () => {
    let form = newHistory({ name: "", version: "" });
    form = typed(form, { name: "a", version: "" }, "name");
    form = typed(form, { name: "ab", version: "" }, "name");
    form = typed(form, { name: "ab", version: "9" }, "version");
    form = undone(form);
    expect(form.now).toEqual({ name: "ab", version: "" });
    expect(undone(form).now).toEqual({ name: "", version: "" });
    expect(redone(form).now).toEqual({ name: "ab", version: "9" });
  });

  it("counts each change of a list, and nothing where nothing changed", () => {
    const one = typed(typed(newHistory<number[]>([]), [1], null), [1, 2], null);
    expect(one.past).toHaveLength(2);
    expect(typed(one, [1, 2], null)).toBe(one);
  });

  it("begins a new change where one was taken back in between, and gives up what was taken back", () => {
    const back = undone(typed(newHistory(""), "a", "name"));
    const anew = typed(back, "b", "name");
    expect([undone(anew).now, redone(anew).now]).toEqual(["", "b"]);
  });

  it("comes back to where it was by as many redos as undos, whatever was typed", () => {
    const keys = fc.array(fc.tuple(fc.string({ maxLength: 2 }), fc.constantFrom("a", "b", null)), {
      maxLength: 40,
    });
    fc.assert(
      fc.property(keys, fc.nat(60), (changes, back) => {
        const end = changes.reduce((h, [now, field]) => typed(h, now, field), newHistory(""));
        let form = end;
        const steps = Math.min(back, end.past.length);
        for (let i = 0; i < steps; i += 1) form = undone(form);
        for (let i = 0; i < steps; i += 1) form = redone(form);
        expect(form.now).toBe(end.now);
        expect(form.past).toEqual(end.past);
      }),
    );
  });
});
