import { describe, expect, it } from "vitest";
import { lossWithin, shareBounds, Trials, type Reliability, type Trial } from ".";

const model = (changes: Partial<Reliability> = {}): Reliability => ({
  ...{ members: 5, tolerates: 1, groups: 1, afr: 0.2, repairHours: 400, repair: "parallel" },
  ...{ bitErrors: null, driveBytes: 18e12, ...changes },
});
const trials = (changes: Partial<Trial> = {}) =>
  new Trials({ model: model(), years: 5, seed: 7, batch: 1, repairs: "spread", ...changes });

describe("trials of a group of drives", () => {
  it.each<[string, Partial<Reliability>]>([
    ["one parity", {}],
    ["two parity", { tolerates: 2, members: 6, afr: 0.4, repairHours: 700 }],
    ["repairs after each other", { tolerates: 2, members: 6, afr: 0.4, repairHours: 700, repair: "serial" }],
    ["mirrors side by side", { members: 2, groups: 6 }],
    ["sectors that cannot be read", { afr: 0.02, repairHours: 48, bitErrors: 1e-15 }],
    ["no redundancy", { tolerates: 0, members: 3, afr: 0.05 }],
  ])("lose as many as the chain says, with %s", (_, changes) => {
    const m = model(changes);
    const { from, to } = trials({ model: m }).run(40_000);
    const said = lossWithin(m, 5);
    // Three standard errors instead of two: six cases are looked at, each with one seed.
    const more = (to - from) / 4;
    expect(said).toBeGreaterThan(from - more);
    expect(said).toBeLessThan(to + more);
  });

  it("give the same for the same seed however they are parted, and something else for another", () => {
    const whole = trials().run(5000);
    const parts = trials();
    parts.run(2000);
    expect(parts.run(3000)).toEqual(whole);
    expect(trials({ seed: 8 }).run(5000).losses).not.toBe(whole.losses);
  });

  it("lose more where drives of one batch fail together, and as much where each repair takes its mean", () => {
    const plain = trials().run(20_000);
    expect(trials({ batch: 5 }).run(20_000).from).toBeGreaterThan(plain.share * 2);
    const even = trials({ repairs: "even" }).run(20_000);
    expect([even.from < plain.to, even.to > plain.from]).toEqual([true, true]);
  });
});

it("bounds of a share hold what was measured, and are all or nothing only at the ends", () => {
  const { from, to } = shareBounds(11, 200_000);
  expect([from, to].map((p) => p.toExponential(3))).toEqual(["3.071e-5", "9.849e-5"]);
  expect(shareBounds(0, 100_000)).toEqual({ from: 0, to: expect.closeTo(3.8414e-5, 8) as number });
  expect(shareBounds(5, 5).to).toBe(1);
  expect(shareBounds(0, 0)).toEqual({ from: 0, to: 1 });
});
