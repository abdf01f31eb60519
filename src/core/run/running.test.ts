import { describe, expect, it } from "vitest";
import { aPlan, HandLog } from "../../../tests/support/runs";
import { addSeconds } from "../units";
import { runningRow, type Stretch } from ".";
import { stillToUndo } from "./undo";

const plan = aPlan();
const row = (log: HandLog, now: string) => runningRow("r1", plan, log.log, now);
const lastOf = (log: HandLog): string => log.log.at(-1)!.at;
const seconds = ({ from, to }: Stretch): number => (Date.parse(to) - Date.parse(from)) / 1000;

/** A log in which so many steps were answered. */
function after(steps: number): HandLog {
  const log = new HandLog(plan);
  for (let i = 0; i < steps * 3 && log.state.current < steps; i += 1) log.goOn();
  expect(log.refusals).toEqual([]);
  return log;
}

describe("a running build on the first page", () => {
  it.each([0, 1, 5, 9])(
    "after %s steps: past stretches are the log's, the others follow each other",
    (steps) => {
      const log = after(steps);
      const now = addSeconds(lastOf(log), 30);
      const { stretches, position, step } = row(log, now);
      expect(position).toBe(`${steps + 1} of ${plan.steps.length}`);
      expect(step).toBe(plan.steps[steps]!.title);
      expect(stretches.map((s) => s.past)).toEqual(plan.steps.map((_, i) => i < steps));
      expect(stretches.map((s) => s.title)).toEqual(plan.steps.map((s) => s.title));
      for (const past of stretches.filter((s) => s.past)) expect(past.to <= now).toBe(true);
      const coming = stretches.slice(steps);
      coming.forEach((s, i) => {
        if (i > 0) expect(s.from).toBe(coming[i - 1]!.to);
        expect(s.kind).toBe(plan.steps[steps + i]!.kind === "wait" ? "wait" : "hands");
        if (i > 0) expect(seconds(s)).toBeCloseTo(plan.steps[steps + i]!.duration.likelySeconds, 0);
      });
    },
  );

  it("what lasts longer than planned lasts until now, and pushes on what comes", () => {
    const log = after(3);
    const late = addSeconds(lastOf(log), 86_400);
    const coming = row(log, late).stretches.slice(3);
    expect([coming[0]!.to, coming[1]!.from]).toEqual([late, late]);
  });

  it("at the end nothing is to come, and the acceptance is what is left", () => {
    const log = after(plan.steps.length);
    const { stretches, step, hands, position } = row(log, lastOf(log));
    expect(stretches.every((s) => s.past)).toBe(true);
    expect([step, hands?.what]).toEqual(["Accept and hand over", "Accept and hand over"]);
    expect(position).toBe(`${plan.steps.length} of ${plan.steps.length}`);
  });

  it("tells what stands for the installation only until it is put right, and nothing before or after", () => {
    const at = (id: string) => plan.steps.findIndex((s) => s.id === id);
    const undo = (steps: number) => row(after(steps), "2026-11-24T20:00:00.000Z").undo;
    expect(undo(at("media-in"))).toEqual([]);
    expect(undo(at("media-in") + 1)).toEqual(["cairn-9.iso mapped"]);
    expect(undo(at("media-out"))).not.toEqual([]);
    expect(undo(at("media-out") + 1)).toEqual([]);
  });

  const right = { media: "none", nextBoot: "as ordered", firmware: "nothing to revert" };
  it("tells of settings of the firmware that are for the installation only", () => {
    expect(stillToUndo({ ...right, firmware: "Secure Boot off" })).toEqual(["Secure Boot off"]);
  });

  it("tells of a boot order that was changed for good", () => {
    expect(stillToUndo({ ...right, nextBoot: "always: virtual CD" })).toEqual(["changed boot order"]);
    expect(stillToUndo({ ...right, nextBoot: "once: virtual CD" })).toEqual([]);
  });
});
