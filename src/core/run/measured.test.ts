import { expect, it } from "vitest";
import { aBuild } from "../../../tests/support/builds";
import { addSeconds } from "../units";
import { foldRun, freezeBuild, measuredTransfer, type LoggedEvent } from ".";

const plan = freezeBuild({ number: "B-0001", revision: "A" }, aBuild());
const AT = "2026-11-20T08:00:00.000Z";

/** The state when the step of that id has just begun, at AT. */
function beginning(id: string) {
  const log: LoggedEvent[] = [{ seq: 1, at: AT, key: "s", event: { kind: "started", by: "J" } }];
  for (const step of plan.steps) {
    if (step.id === id) break;
    log.push({
      seq: log.length + 1,
      at: AT,
      key: step.id,
      event: { kind: "as expected", step: step.id, by: "J" },
    });
  }
  return foldRun(plan.steps, log);
}

it("takes the bytes and the time of a step that moved them", () => {
  const state = beginning("screen-loading");
  expect(measuredTransfer(plan, state, addSeconds(AT, 500))).toEqual({
    step: "screen-loading",
    sample: {
      way: "virtual media",
      through: "controller at Works",
      bytes: 731_906_048,
      seconds: 500,
      at: "2026-11-20T08:08:20.000Z",
      where: "wrk-hv1, Works, B-0001",
    },
  });
});

it("takes nothing from a finger that was too quick, an operator who was away, or a step that moves nothing", () => {
  const state = beginning("screen-loading");
  expect(measuredTransfer(plan, state, addSeconds(AT, 4))).toBeNull();
  expect(measuredTransfer(plan, state, addSeconds(AT, 40_000))).toBeNull();
  expect(measuredTransfer(plan, beginning("screen-welcome"), addSeconds(AT, 60))).toBeNull();
});

it("takes the time that the machine told, where a person came to the step late", () => {
  const state = beginning("screen-loading");
  const at = addSeconds(AT, 2);
  expect(measuredTransfer(plan, state, at)).toBeNull();
  expect(measuredTransfer(plan, state, at, 500)?.sample.seconds).toBe(500);
});
