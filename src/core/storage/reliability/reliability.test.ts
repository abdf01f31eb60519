import fc from "fast-check";
import { describe, expect, it } from "vitest";
import {
  drivesIn,
  hoursToLoss,
  lossWithin,
  naiveHours,
  survival,
  type Redundancy,
  type Reliability,
} from ".";

const model = (changes: Partial<Reliability> = {}): Reliability => ({
  ...{ members: 5, tolerates: 1, groups: 1, afr: 0.02, repairHours: 48, repair: "parallel" },
  ...{ bitErrors: null, driveBytes: 18e12, ...changes },
});

/** All sets of failed drives, one by one. */
function counted(of: Redundancy, k: number): [survived: number, total: number] {
  const n = drivesIn(of);
  let survived = 0;
  let total = 0;
  for (let set = 0; set < 2 ** n; set += 1) {
    const failed = Array.from({ length: n }, (_, i) => (set >> i) & 1);
    if (failed.reduce((a, b) => a + b, 0) !== k) continue;
    total += 1;
    let at = 0;
    const stands =
      of.kind === "ring"
        ? !failed.some((f, i) => f && failed[(i + 1) % n])
        : of.groups.every(([members, tolerates]) => {
            const lost = failed.slice(at, (at += members)).reduce((a, b) => a + b, 0);
            return lost <= tolerates;
          });
    if (stands) survived += 1;
  }
  return [survived, total];
}

describe("the share of failures that is survived", () => {
  it("is what counting every set gives, for groups and for the ring of an odd RAID10", () => {
    const groups = fc
      .array(fc.tuple(fc.integer({ min: 1, max: 4 }), fc.integer({ min: 0, max: 3 })), {
        minLength: 1,
        maxLength: 3,
      })
      .map((g): Redundancy => ({ kind: "groups", groups: g.map(([m, t]) => [m, Math.min(m, t)] as const) }));
    const ring = fc.integer({ min: 3, max: 11 }).map((members): Redundancy => ({ kind: "ring", members }));
    fc.assert(
      fc.property(fc.oneof(groups, ring), (of) => {
        for (const { k, survived, total } of survival(of).rows)
          expect([Number(survived), Number(total)]).toEqual(counted(of, k));
      }),
      { numRuns: 60 },
    );
  });

  it("is smaller for RAID10 on five drives than on four, and exact beyond what a double counts", () => {
    const pairs = (n: number): Redundancy => ({
      kind: "groups",
      groups: Array.from({ length: n }, () => [2, 1] as const),
    });
    expect(survival({ kind: "ring", members: 5 }).rows[2]?.fraction).toBe(0.5);
    expect(survival(pairs(2)).rows[2]?.fraction).toBeCloseTo(2 / 3);
    const many = survival(pairs(500));
    expect([many.worst, many.best, many.drives]).toEqual([1, 500, 1000]);
    expect(many.rows[2]?.fraction).toBeCloseTo(1 - 1 / 999, 12);
  });
});

describe("the loss of data over years", () => {
  it("comes in a seventh of five-drive arrays of 18 TB in five years, once sectors may be unreadable", () => {
    expect(lossWithin(model({ bitErrors: 1e-15 }), 5)).toBeCloseTo(0.15, 1);
    expect(lossWithin(model(), 5)).toBeCloseTo(0.0002, 3);
  });

  it("is near what the mean time to loss gives while it is rare, and never less than nothing or more than all", () => {
    const hours = fc.integer({ min: 1, max: 200 });
    fc.assert(
      fc.property(
        hours,
        fc.integer({ min: 2, max: 12 }),
        fc.integer({ min: 0, max: 3 }),
        (repairHours, n, p) => {
          const m = model({ repairHours, members: n + p, tolerates: p });
          const loss = lossWithin(m, 5);
          expect(loss).toBeGreaterThan(0);
          expect(loss).toBeLessThanOrEqual(1);
          if (loss < 1e-3) expect(Math.abs(loss / ((5 * 8760) / hoursToLoss(m)) - 1)).toBeLessThan(0.02);
        },
      ),
    );
  });

  it("grows with years, groups, slower repairs and serial ones, and is nothing over no time", () => {
    const base = lossWithin(model({ tolerates: 2 }), 5);
    const worse: Reliability[] = [
      model({ groups: 2 }),
      model({ repairHours: 96 }),
      model({ repair: "serial" }),
    ];
    for (const m of worse) expect(lossWithin({ ...m, tolerates: 2 }, 5)).toBeGreaterThan(base);
    expect(lossWithin(model({ tolerates: 2 }), 6)).toBeGreaterThan(base);
    expect(lossWithin(model(), 0)).toBe(0);
    expect(naiveHours(model()) / hoursToLoss(model())).toBeCloseTo(1, 2);
  });
});
