import { describe, expect, it } from "vitest";
import { naming } from "../../../tests/support/steps";
import { acceptanceOf, nextHands, type RunCommand } from "@/core/run";
import { aPlan, HandLog } from "@/../tests/support/runs";
import { predict } from "./predict";
import type { RunView } from "@/contract";

const viewOf = (run: HandLog): RunView => ({
  ...{
    id: "r-1",
    buildId: "b-1",
    plan: run.plan,
    log: [...run.log],
    state: run.state,
    now: run.log.at(-1)!.at,
  },
  hands: nextHands(run.plan.steps, run.state, run.log.at(-1)!.at),
  acceptance: acceptanceOf(run.plan, run.state),
});
const at = Date.parse("2026-11-26T12:00:00Z");
const unsent = (...commands: RunCommand[]) =>
  commands.map((command, i) => ({ key: `key-${i}`, command, givenAt: at + i * 60_000 }));

describe("the run as it will be when the server is back", () => {
  const run = new HandLog(aPlan());
  const [first, second] = run.plan.steps;
  const answer = (step: string): RunCommand => ({ kind: "as expected", step, words: "on the file server" });

  it("goes on with each answer, in the order in which they were given, and is what the server makes of them", () => {
    const shown = predict(viewOf(run), unsent(answer(first!.id), answer(second!.id)));
    expect(shown.state.current).toBe(2);
    const later = new HandLog(run.plan);
    later.goOn();
    later.goOn();
    expect(shown.state.steps.map((s) => s.state)).toEqual(later.state.steps.map((s) => s.state));
    expect(shown.state.strip).toEqual(later.state.strip);
    expect(shown.log.at(-1)!.event.by).toBe("you, not yet sent");
    expect(shown.log.map((l) => l.seq)).toEqual(shown.log.map((_, i) => i + 1));
  });

  it("counts an answer once, whether it has arrived meanwhile or not", () => {
    const entries = unsent(answer(first!.id));
    const shown = predict(viewOf(run), entries);
    expect(predict({ ...shown, state: shown.state }, entries)).toEqual(shown);
  });

  it("leaves out what the server will refuse", () => {
    const shown = predict(viewOf(run), unsent(answer(second!.id), { kind: "note", step: null, text: "n" }));
    expect(shown.state.current).toBe(0);
    expect(shown.log.at(-1)!.event.kind).toBe("note");
  });

  it("passes no guard by guess: what was typed must name the drive", () => {
    const before = new HandLog(run.plan);
    while (before.step && !naming(before.step)) before.goOn();
    const guard = naming(before.step)!;
    const stopped = predict(
      viewOf(before),
      unsent({ kind: "guard", step: guard.id, typed: "nothing like it" }),
    );
    expect(stopped.state.status).toBe("stopped");
    const passed = predict(
      viewOf(before),
      unsent({ kind: "guard", step: guard.id, typed: before.answer(guard) }),
    );
    expect([passed.state.status, passed.state.guardsPassed]).toEqual([
      "running",
      expect.arrayContaining([guard.id]),
    ]);
  });

  it("is the view itself while nothing waits", () => {
    const view = viewOf(run);
    expect(predict(view, [])).toBe(view);
  });
});
