import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { aDrive } from "../../../tests/support/builds";
import { aPlan, HandLog } from "../../../tests/support/runs";
import { addSeconds } from "../units";
import { decide, foldRun, logLine, nextHands, type RunCommand } from ".";

const by = "J. Pell";
const archive = aDrive("SA-000009", {
  sizeBytes: 9e11,
  contents: [{ part: "a", sizeBytes: 1, kind: "ext4", label: "archive", mountedAt: [] }],
});
const plan = aPlan({
  drives: [aDrive("NV-0001", {}), archive],
  sheet: { "storage.leaveAlone": ["SA-000009"] },
});

describe("a run", () => {
  it("goes to its end when everything is as expected, and keeps the strip true", () => {
    const run = new HandLog(plan).toStep("screen-loading");
    expect(run.state.strip).toEqual({
      power: "on",
      media: "cairn-9.iso mapped",
      nextBoot: "once: virtual CD",
      target: "untouched",
    });
    run.toStep("screen-install-or-upgrade");
    expect(run.state.strip.target).toBe("at risk");
    run.toStep("restart");
    expect(run.state.strip).toMatchObject({ media: "none", nextBoot: "as ordered", target: "installed" });
    run.toStep("end");
    expect(run.state).toMatchObject({ status: "steps done", current: plan.steps.length, deviations: [] });
    expect(run.refusals).toEqual([]);
  });

  it("is not handed over before the installed system was read back", () => {
    const run = new HandLog(plan).toStep("end");
    run.send({ kind: "handed over", to: "Control room", by });
    expect(run.refusals[0]).toContain("accept it first");
    run.append({ kind: "accepted", from: "bundle.txt", lines: [], by });
    run.send({ kind: "handed over", to: "Control room", by });
    expect(run.state).toMatchObject({ status: "handed over", handedTo: "Control room" });
    run.send({ kind: "as expected", step: "hand-over", by });
    expect(run.refusals[1]).toContain("only notes and corrections");
  });

  it("does not go on twice for two windows", () => {
    const run = new HandLog(plan);
    run.send({ kind: "as expected", step: "identity", by });
    run.send({ kind: "as expected", step: "identity", by });
    expect(run.state.current).toBe(1);
    expect(run.refusals[0]).toContain("no longer the current one");
  });
});

describe("the guard", () => {
  const atGuard = () => new HandLog(plan).toStep("guard-disk");

  it.each(["V-0001", "nv-0001", " NV-0001 "])("lets %j pass", (typed) => {
    const run = atGuard();
    run.send({ kind: "guard", step: "guard-disk", typed, by });
    expect(run.step?.id).toBe("screen-disk");
  });

  it.each([
    ["000009", "left-alone drive", /must be left alone \(ext4 "archive"\)/],
    ["0001", "other drive", /This is not/],
    ["V-0002", "other drive", /This is not/],
  ])("stops the run at %j: %s", (typed, verdict, words) => {
    const run = atGuard();
    run.send({ kind: "guard", step: "guard-disk", typed, by });
    expect(run.log.at(-1)?.event).toMatchObject({ kind: "guard", verdict });
    expect(run.state.status).toBe("stopped");
    expect(run.state.stoppedBy).toMatch(words);
    run.send({ kind: "guard", step: "guard-disk", typed: "V-0001", by });
    expect(run.refusals[0]).toContain("The run is stopped");
    run.send({ kind: "resumed", reason: "read the wrong line; looked again", by });
    run.send({ kind: "guard", step: "guard-disk", typed: "V-0001", by });
    expect(run.state).toMatchObject({ status: "running" });
    expect(run.state.deviations).toHaveLength(1);
  });

  it("cannot be skipped, expected away, or passed with a difference", () => {
    const run = atGuard();
    run.send({ kind: "as expected", step: "guard-disk", by });
    run.send({ kind: "skipped", step: "guard-disk", reason: "no time", by });
    run.send({ kind: "differs", step: "guard-disk", seen: "another drive", decision: "go on", by });
    expect(run.refusals).toHaveLength(3);
    expect(run.step?.id).toBe("guard-disk");
  });

  it("must be passed again after going back", () => {
    const run = atGuard().toStep("screen-install-or-upgrade");
    run.send({
      kind: "differs",
      step: "screen-install-or-upgrade",
      seen: "the other line was marked",
      decision: "go back",
      by,
    });
    expect(run.step?.id).toBe("guard-disk");
    expect(run.state.guardsPassed).toEqual([]);
  });
});

describe("time", () => {
  it("runs by itself on a wait, and says when hands are needed", () => {
    const run = new HandLog(plan).toStep("screen-writing");
    const { timer } = run.state;
    const begun = run.log.at(-1)!.at;
    expect(timer).toEqual({
      step: "screen-writing",
      startedAt: begun,
      likelyAt: addSeconds(begun, 480),
      lateAt: addSeconds(begun, 1200),
    });
    expect(nextHands(plan.steps, run.state, begun)).toEqual({
      at: addSeconds(begun, 480),
      what: "Unmap the virtual CD, when this has ended: the system is being written",
      late: false,
    });
    expect(nextHands(plan.steps, run.state, addSeconds(begun, 1201))).toMatchObject({ late: true });
  });
});

it("has words for every event", () => {
  const run = new HandLog(plan);
  run.send({ kind: "note", step: null, text: "fan 3 is loud", by });
  run.send({ kind: "reading", step: null, what: "inlet", value: "24 °C", by });
  run.send({ kind: "corrected", seq: 2, text: "fan 2, not 3", by });
  run.send({ kind: "differs", step: "identity", seen: "label worn", decision: "go on", by });
  expect(run.log.map((l) => logLine(l.event, plan))).toEqual([
    "Started",
    "Note: fan 3 is loud",
    "Reading: inlet 24 °C",
    "Correction of 2: fan 2, not 3",
    "Make sure that this is the machine: differs. label worn (go on)",
  ]);
});

it("keeps its rules in any storm of commands", () => {
  const ids = [...plan.steps.map((s) => s.id), "nonsense"];
  const command = fc.oneof(
    fc.record({
      kind: fc.constant("as expected" as const),
      step: fc.constantFrom(...ids),
      by: fc.constant(by),
    }),
    fc.record({
      kind: fc.constant("guard" as const),
      step: fc.constantFrom(...ids),
      typed: fc.constantFrom("V-0001", "000009", "x", ""),
      by: fc.constant(by),
    }),
    fc.record({
      kind: fc.constant("differs" as const),
      step: fc.constantFrom(...ids),
      seen: fc.constant("odd"),
      decision: fc.constantFrom("go on", "go back", "stop"),
      by: fc.constant(by),
    }),
    fc.record({ kind: fc.constant("resumed" as const), reason: fc.constant("looked"), by: fc.constant(by) }),
    fc.constant("go on" as const),
  );
  fc.assert(
    fc.property(fc.array(command, { maxLength: 80 }), (commands) => {
      const run = new HandLog(plan);
      for (const c of commands) {
        if (c === "go on") run.goOn();
        else run.send(c as RunCommand);
        const { current, guardsPassed, steps } = run.state;
        const destroyed = plan.steps.findIndex((s) => s.id === "screen-disk");
        if (current > destroyed) expect(guardsPassed).toContain("guard-disk");
        expect(steps.filter((s) => s.state === "current").length).toBeLessThanOrEqual(1);
      }
      expect(foldRun(plan.steps, run.log)).toEqual(run.state);
      for (const { event } of run.log)
        expect(decide(plan, run.state, { kind: "note", step: null, text: logLine(event, plan), by }).ok).toBe(
          true,
        );
    }),
    { seed: 3, numRuns: 150 },
  );
});
