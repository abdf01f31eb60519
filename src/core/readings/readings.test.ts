import { describe, expect, it } from "vitest";
import { aBuild, aDrive } from "../../../tests/support/builds";
import {
  baselines,
  latestReadings,
  percentOfRated,
  powerOf,
  readingProblem,
  readingsOf,
  readingWords,
  type Reading,
} from ".";

const r = (value: number, more: Partial<Reading> = {}): Reading => ({
  at: "2026-11-20T08:00:00.000Z",
  by: "J. Pell",
  kind: "power",
  what: "at the wall",
  state: "idle",
  value,
  limit: null,
  source: "typed",
  how: "",
  ...more,
});

it("keeps the newest reading of each thing and state", () => {
  const all = [r(90), r(88, { at: "2026-11-21T08:00:00.000Z" }), r(210, { state: "loaded" })];
  expect(latestReadings(all).map((x) => x.value)).toEqual([88, 210]);
  expect(powerOf(all)).toMatchObject({ idle: { value: 88 }, loaded: { value: 210 } });
  expect(powerOf([r(70, { state: "not told" })])).toMatchObject({ idle: { value: 70 }, loaded: null });
});

it("refuses numbers in another unit", () => {
  expect(readingProblem(r(0.09, { kind: "clock" }))).toMatch(/0\.09 MHz is not plausible for clock rate/);
  expect(readingProblem(r(90_000))).toMatch(/90000 W is not plausible for power/);
  expect(readingProblem(r(90))).toBeNull();
});

it("takes readings from sensors and drives of an import", () => {
  const { facts } = aBuild().machine!.document;
  const sensor = {
    id: "coretemp Package",
    kind: "temperature" as const,
    value: 61,
    max: 90,
    critical: 100,
    min: null,
  };
  const taken = readingsOf(
    {
      ...facts,
      sensors: [sensor, { ...sensor, id: "in0", kind: "voltage", value: 12 }],
      drives: [aDrive("Z", { health: { temperatureC: 34 } }), aDrive("Y", {})],
    },
    "2026-11-20T08:00:00.000Z",
    "J. Pell",
    "idle",
  );
  expect(taken.map((x) => [x.what, x.value, x.limit])).toEqual([
    ["coretemp Package", 61, 90],
    ["drive Z", 34, null],
  ]);
});

describe("the baseline of like machines", () => {
  const like = (name: string, likeness: "model" | "processor", value: number) => ({
    name,
    likeness,
    readings: [r(value)],
  });

  it("is the median of the same model, and says how many stand behind it", () => {
    const [line] = baselines(
      [r(110)],
      [like("a", "model", 90), like("b", "model", 100), like("c", "model", 130), like("d", "processor", 10)],
    );
    expect(line).toMatchObject({ median: 100, count: 3, likeness: "model" });
    expect(line?.deviationPercent).toBeCloseTo(10, 9);
  });

  it("falls back to the processor, and is not made against nothing", () => {
    expect(baselines([r(110)], [like("d", "processor", 100)])[0]).toMatchObject({
      median: 100,
      likeness: "processor",
    });
    expect(baselines([r(110)], [])).toEqual([]);
    expect(baselines([r(110, { state: "loaded" })], [like("a", "model", 90)])).toEqual([]);
  });
});

it("shows a rate as a share of what the link is rated at", () => {
  expect(percentOfRated(r(713, { kind: "network" }), 1000)).toBeCloseTo(71.3);
  expect(readingWords(r(41.25, { kind: "temperature" }))).toBe("41.3 °C");
});
