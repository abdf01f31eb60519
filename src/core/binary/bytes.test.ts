import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { Bytes } from ".";

const of = (...bytes: number[]): Bytes => new Bytes(Uint8Array.from(bytes));
const ascii = (text: string): number[] => [...text].map((c) => c.charCodeAt(0));

describe("bytes", () => {
  it("are read little-endian, as disks have them", () => {
    const bytes = of(0x55, 0xaa, 0x01, 0x02, 0x03, 0x04, 0x05, 0x06);
    expect([bytes.u8(1), bytes.u16(0), bytes.u32(2)]).toEqual([0xaa, 0xaa55, 0x04030201]);
    expect(bytes.u64(0)).toBeNull();
    expect(of(0, 0, 0, 0, 1, 0, 0, 0).u64(0)).toBe(2 ** 32);
    expect(of(255, 255, 255, 255, 255, 255, 31, 0).u64(0)).toBe(Number.MAX_SAFE_INTEGER);
    expect(of(0, 0, 0, 0, 0, 0, 32, 0).u64(0)).toBeNull();
  });

  it("give texts up to the first zero, without blanks behind, and control characters as a dot", () => {
    const bytes = of(...ascii("CAIRN_9  "), 0, ...ascii("after"));
    expect([bytes.text(0, 14), bytes.text(10, 5), bytes.text(0, 3)]).toEqual(["CAIRN_9", "after", "CAI"]);
    expect(of(65, 7, 66).text(0, 3)).toBe("A·B");
    expect(of(0, 65, 0x20, 0xac, 0, 0, 0, 66).utf16be(0, 8)).toBe("A€");
    expect([bytes.starts(0, "CAIRN"), bytes.starts(0, "cairn"), bytes.starts(12, "after")]).toEqual([
      true,
      false,
      false,
    ]);
  });

  it("have an origin of their own when a part is taken", () => {
    const part = of(9, 9, 1, 2, 3).sub(2, 2);
    expect([part.length, part.u16(0), part.u8(2)]).toEqual([2, 0x0201, 0]);
    expect(of(1, 2).sub(-5, 4).length).toBe(0);
  });

  it("never throw, and give zero or nothing outside, wherever somebody reads", () => {
    const place = fc.integer({ min: -40, max: 80 });
    fc.assert(
      fc.property(fc.uint8Array({ maxLength: 32 }), place, place, (raw, offset, length) => {
        const bytes = new Bytes(raw);
        const inside = offset >= 0 && offset < raw.length;
        expect(bytes.u8(offset)).toBe(inside ? raw[offset] : 0);
        if (!bytes.has(offset, 4)) expect([bytes.u32(offset), bytes.u64(offset)]).toEqual([0, null]);
        expect(bytes.text(offset, length).length).toBeLessThanOrEqual(raw.length);
        expect(() => [bytes.utf16be(offset, length), bytes.sub(offset, length).u16(0)]).not.toThrow();
      }),
      { seed: 5, numRuns: 300 },
    );
  });
});
