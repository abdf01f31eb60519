import { describe, expect, it } from "vitest";
import { seeded } from "../../../tests/support/random";
import { placesOf, type Wanted } from "./places";

const at = (top: number, weight = 1, height = 20): Wanted => ({ top, weight, height });

describe("places in a margin", () => {
  it("are level with the fields where there is room", () =>
    expect(placesOf([at(0), at(100), at(300)], 10)).toEqual([0, 100, 300]));

  it("are shared between two that want the same place, and the heavier one gives way less", () => {
    expect(placesOf([at(100), at(100)], 10)).toEqual([85, 115]);
    const [light, heavy] = placesOf([at(100, 1), at(100, 99)], 10);
    expect(heavy! - light!).toBe(30);
    expect(Math.abs(heavy! - 100)).toBeLessThan(1);
  });

  it("never begin above the top", () => expect(placesOf([at(0), at(0), at(5)], 10)).toEqual([0, 30, 60]));

  it("keep the order, and never overlap, whatever is wanted", () => {
    const random = seeded(7);
    for (let n = 0; n < 300; n += 1) {
      const wanted = Array.from({ length: 1 + Math.floor(random() * 60) }, () =>
        at(random() * 900, random() < 0.2 ? 100 : 1, 10 + random() * 80),
      ).toSorted((a, b) => a.top - b.top);
      const places = placesOf(wanted, 8);
      expect(places[0]).toBeGreaterThanOrEqual(0);
      places
        .slice(1)
        .forEach((y, i) => expect(y - places[i]!).toBeGreaterThanOrEqual(wanted[i]!.height + 8 - 1e-6));
    }
  });
});
