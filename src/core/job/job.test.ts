import { describe, expect, it } from "vitest";
import { isOn, jobSchema, progressOf, type Job } from ".";

const job = (part: Partial<Job>): Job =>
  jobSchema.parse({
    ...{ id: "j-1", kind: "checksum", about: "a.iso", state: "working", by: "J. Pell", problem: null },
    ...{ askedAt: "2026-11-27T08:00:00.000Z", begunAt: "2026-11-27T08:00:10.000Z" },
    ...{ pulseAt: "2026-11-27T08:00:14.000Z", done: 0, size: 1000 },
    ...part,
  });

describe("how far a job is", () => {
  it.each([
    ["a quarter after four seconds", { done: 250 }, { percent: 25, rate: 62.5, secondsLeft: 12 }],
    ["all but one unit is not all", { done: 999 }, { percent: 99, rate: 249.75, secondsLeft: 1 / 249.75 }],
    ["all of it", { done: 1000 }, { percent: 100, rate: 250, secondsLeft: 0 }],
    ["nothing yet", { done: 0 }, { percent: 0, rate: null, secondsLeft: null }],
    ["waiting for its turn", { begunAt: null }, { percent: 0, rate: null, secondsLeft: null }],
    ["an empty file", { done: 0, size: 0 }, { percent: 0, rate: null, secondsLeft: null }],
    [
      "a clock that was set back tells no rate",
      { done: 500, pulseAt: "2026-11-27T07:00:00.000Z" },
      { percent: 50, rate: null, secondsLeft: null },
    ],
    ["a file that grew meanwhile", { done: 2000 }, { percent: 100, rate: 500, secondsLeft: 0 }],
  ] as const)("%s", (_, part, expected) => expect(progressOf(job(part))).toEqual(expected));
});

it("is on while it waits and works, and over in every other state", () => {
  const states = ["waiting", "working", "done", "stopped", "failed", "interrupted"] as const;
  expect(states.filter((state) => isOn({ state }))).toEqual(["waiting", "working"]);
  expect([isOn(null), isOn(undefined)]).toEqual([false, false]);
});
