import { describe, expect, it } from "vitest";
import { clockJumps, foldRun, givenBefore, happened, type LoggedEvent } from ".";
import { aPlan, HandLog } from "@/../tests/support/runs";

const note = (seq: number, at: string, given?: string): LoggedEvent => ({
  seq,
  at,
  given,
  key: `k${seq}`,
  event: { kind: "note", step: null, text: "t", by: "J. Pell" },
});

describe("when an answer was given", () => {
  const at = "2026-11-26T12:00:00.000Z";
  const cases: [string, number | undefined, string | null][] = [
    ["a browser that does not say", undefined, null],
    ["at once", 0.4, null],
    ["a clock that went back in the browser meanwhile", -900, null],
    ["kept for ten minutes", 600, "2026-11-26T11:50:00.000Z"],
  ];
  it.each(cases)("%s", (_, age, given) => expect(givenBefore(at, age)).toBe(given));
});

describe("when the events of a log happened", () => {
  it("is when they were given, not when they arrived", () => {
    const log = [
      note(1, "2026-11-26T12:00:00Z"),
      note(2, "2026-11-26T13:00:00Z", "2026-11-26T12:10:00Z"),
      note(3, "2026-11-26T13:00:01Z", "2026-11-26T12:30:00Z"),
    ];
    expect(happened(log).map((t) => t.slice(11, 16))).toEqual(["12:00", "12:10", "12:30"]);
    expect(clockJumps(log)).toEqual([]);
  });

  it("never goes back: neither with the server's clock nor with an answer that claims to be older", () => {
    const log = [
      note(1, "2026-11-26T12:00:00Z"),
      note(2, "2026-11-26T11:40:00Z"),
      note(3, "2026-11-26T11:41:00Z", "2026-11-26T09:00:00Z"),
      note(4, "2026-11-26T12:20:00Z"),
    ];
    expect(happened(log).map((t) => t.slice(11, 16))).toEqual(["12:00", "12:00", "12:00", "12:20"]);
    expect(clockJumps(log)).toEqual([{ seq: 2, seconds: 1200 }]);
  });
});

it("a run whose answers were kept in the browser has the times of its steps as if the server had been there", () => {
  const done = new HandLog(aPlan());
  while (done.step) done.goOn();
  const [started, ...rest] = done.log;
  // The server was away for the whole run: everything arrives at once, hours later.
  const kept = [started!, ...rest.map((e) => ({ ...e, at: "2030-01-01T00:00:00.000Z", given: e.at }))];
  expect(foldRun(done.plan.steps, kept).steps).toEqual(foldRun(done.plan.steps, done.log).steps);
});
