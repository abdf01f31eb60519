import { describe, expect, it } from "vitest";
import { makeRecord } from ".";
import { aPlan, HandLog } from "@/../tests/support/runs";

describe("a run whose answers were kept in the browser", () => {
  const plan = aPlan();
  const done = new HandLog(plan);
  while (done.step) done.goOn();
  const minutesLater = (iso: string, minutes: number) =>
    new Date(Date.parse(iso) + minutes * 60_000).toISOString();
  // The server was away for the whole run: everything arrives in one minute, an hour after the start.
  const kept = done.log.map((entry, i) =>
    i === 0 ? entry : { ...entry, at: minutesLater(done.log[0]!.at, 600), given: entry.at },
  );

  it("has no negative time on its record when the clock went back in the middle, and says where", () => {
    const jumped = done.log.map((entry) =>
      entry.seq > 5 ? { ...entry, at: minutesLater(entry.at, -180) } : entry,
    );
    const record = makeRecord(plan, jumped);
    expect(record.times.steps.filter((s) => (s.takenSeconds ?? 0) < 0)).toEqual([]);
    expect(record.times.takenSeconds).toBeGreaterThanOrEqual(0);
    expect(record.clock).toEqual([{ at: record.log[5]!.at, seconds: 179 * 60 }]);
    expect(makeRecord(plan, done.log).clock).toEqual([]);
  });

  it("tells on its record what arrived later than it was given", () => {
    const { log } = makeRecord(plan, kept);
    expect(log[0]!.arrived).toBeNull();
    expect(log[3]).toMatchObject({ at: done.log[3]!.at, arrived: kept[3]!.at });
  });
});
