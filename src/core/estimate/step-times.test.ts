import { expect, it } from "vitest";
import { learnStep, takes, type StepTime } from ".";

const time = (seconds: number, more: Partial<StepTime> = {}): StepTime => ({
  screen: "cairn 9 writing",
  model: "Ostler R114",
  seconds,
  at: "2026-11-20T08:00:00Z",
  where: "wrk-hv1, B-0001",
  ...more,
});
const usual = takes(480, 1200, 0.05);
const learned = (...times: StepTime[]) => learnStep(usual, "cairn 9 writing", "Ostler R114", times);

it("says nothing without a run of this screen", () => {
  expect(learned()).toBeNull();
  expect(learned(time(900, { screen: "cairn 9 loading" }))).toBeNull();
});

it("moves by a third with the first run, and says how many stand behind it", () => {
  // (2 × 480 + 900) ÷ 3 = 620; late (2 × 1200 + 900) ÷ 3 = 1100.
  const one = learned(time(900));
  expect(one).toMatchObject({
    runs: 1,
    duration: { likelySeconds: 620, lateSeconds: 1100, handsShare: 0.05 },
  });
  expect(one?.figure.inputs).toMatchObject([
    { source: "default" },
    { value: "1 on Ostler R114" },
    { source: "measured" },
  ]);
});

it("comes close to the own median with many, and is never later than likely", () => {
  const many = learned(...Array.from({ length: 18 }, () => time(2000)));
  expect(many?.duration.likelySeconds).toBe((2 * 480 + 18 * 2000) / 20);
  expect(many!.duration.lateSeconds).toBeGreaterThanOrEqual(many!.duration.likelySeconds);
});

it("takes the same model before any other", () => {
  expect(learned(time(900), time(60, { model: "Pippin 3" }))?.duration.likelySeconds).toBe(620);
  expect(learned(time(60, { model: "Pippin 3" }))?.duration.likelySeconds).toBe(340);
});
