import { describe, expect, it } from "vitest";
import { aBuild, aDrive } from "../../../tests/support/builds";
import { machineDocumentSchema } from "../machine";
import type { Reading } from "../readings";
import {
  circuitState,
  heat,
  judgeMachine,
  payBack,
  runningOf,
  yearlyCost,
  yearlyEnergy,
  type Running,
  type VerdictInput,
} from ".";

const run = (idleWatts: number, loadedWatts = idleWatts, loadedShare = 0): Running => ({
  idleWatts,
  loadedWatts,
  loadedShare,
  idleSource: "typed",
  loadedSource: "typed",
});
const tariff = { perKilowattHour: 0.3, currency: "£" };
const r = (kind: Reading["kind"], value: number, more: Partial<Reading> = {}): Reading => ({
  at: "2026-11-20T08:00:00.000Z",
  by: "x",
  kind,
  what: kind === "power" ? "at the wall" : "processor",
  state: "idle",
  value,
  limit: null,
  source: "typed",
  how: "",
  ...more,
});

describe("running cost", () => {
  it("of 90 W idle is 789 kWh a year, with its working", () => {
    expect(yearlyEnergy(run(90)).value).toBeCloseTo(788.94);
    const cost = yearlyCost(run(100, 200, 0.25), tariff);
    expect(cost.value).toBeCloseTo(125 * 8.766 * 0.3);
    expect(cost.inputs.map((i) => i.name)).toContain("share of time under load");
  });

  it("pays another machine back in months, or never", () => {
    expect(payBack(run(200), run(20), 400, tariff)?.value).toBeCloseTo((400 / (180 * 8.766 * 0.3)) * 12);
    expect(payBack(run(20), run(20), 400, tariff)).toBeNull();
  });

  it("becomes heat", () => expect(heat(run(100)).value).toBeCloseTo(341.2));
});

it("adds up a circuit from loaded readings, and counts what was never read", () => {
  const members = [
    { name: "a", circuit: "A1", readings: [r("power", 90), r("power", 300, { state: "loaded" })] },
    { name: "b", circuit: "A1", readings: [r("power", 80)] },
    { name: "c", circuit: "A1", readings: [] },
    { name: "d", circuit: "A2", readings: [r("power", 999)] },
  ];
  expect(circuitState({ name: "A1", limitWatts: 350 }, members)).toEqual({
    name: "A1",
    limitWatts: 350,
    watts: 380,
    machines: 3,
    unread: 1,
  });
});

it("takes the one reading for both states, and says which of the two is a default", () => {
  expect(runningOf([r("power", 90)], 0.2)).toMatchObject({
    idleWatts: 90,
    loadedWatts: 90,
    idleSource: "typed",
    loadedSource: "default",
  });
  expect(runningOf([], 0.2)).toBeNull();
});

describe("the verdict on an old machine", () => {
  const input = (more: Partial<VerdictInput> & { facts?: object } = {}): VerdictInput => {
    const base = aBuild().machine!.document;
    return {
      document: machineDocumentSchema.parse({ ...base, facts: { ...base.facts, ...more.facts } }),
      readings: [r("power", 60), r("temperature", 50, { limit: 90 })],
      now: "2026-11-20T08:00:00.000Z",
      tariff,
      loadedShare: 0.2,
      other: null,
      wantsPassThrough: false,
      memoryWantedBytes: null,
      ...more,
    };
  };

  it("is for it when nothing speaks against", () => {
    expect(judgeMachine(input()).sentence).toBe("Worth using.");
  });

  it("is not made without measurements", () => {
    expect(judgeMachine(input({ readings: [] })).verdict).toBe("not enough known");
  });

  it("is against it when power and heat speak against", () => {
    const verdict = judgeMachine(
      input({
        readings: [r("power", 260), r("temperature", 88, { limit: 92, state: "loaded" })],
        other: { name: "Pippin 3", running: run(9), price: 420 },
      }),
    );
    expect(verdict.sentence).toMatch(
      /^Not worth it for this job: it costs £684 per year to run; Pippin 3 would pay off in 8 months; processor is at 88 °C, 4 K below its limit\.$/,
    );
    expect(verdict.points[0]?.figure?.unit).toBe("months");
  });

  it("counts pass-through groups that cannot be parted", () => {
    const pci = (slot: string, classId: string, iommuGroup: number | null, device: string) => ({
      slot,
      className: "x",
      classId,
      maker: "m",
      device,
      ids: "1:2",
      iommuGroup,
    });
    const shared = [
      pci("01:00.0", "0300", 1, "Card A"),
      pci("01:00.1", "0403", 1, "Card A sound"),
      pci("02:00.0", "0300", 2, "Card B"),
      pci("03:00.0", "0200", 2, "Port"),
    ];
    const words = (facts: object) =>
      judgeMachine(input({ wantsPassThrough: true, facts })).points.map((p) => `${p.weighs}: ${p.words}`);
    expect(words({ pci: shared })).toEqual(
      expect.arrayContaining([
        "for: Card A is alone in IOMMU group 1",
        "against: Card B shares IOMMU group 2 with Port",
      ]),
    );
    expect(words({ pci: [pci("01:00.0", "0300", null, "Card A")] })).toContain(
      "unknown: its IOMMU groups were not collected",
    );
    expect(words({ processors: { iommu: false } })).toContain(
      "against: it has no IOMMU groups, so PCI pass-through is not possible",
    );
  });

  it("counts a failing drive and old firmware", () => {
    const facts = {
      drives: [aDrive("Z", { health: { pending: 4 } })],
      firmware: { mode: "legacy", releaseDate: "03/14/2013" },
    };
    expect(judgeMachine(input({ facts })).verdict).toBe("not worth it");
  });
});
