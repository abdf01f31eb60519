import { describe, expect, it } from "vitest";
import { shippedProfile } from "../../../tests/support/builds";
import { aPlan, HandLog } from "../../../tests/support/runs";
import { formatDuration } from "../units";
import { acceptanceOf, isOpen, logInsOf, logInWords } from ".";

const plan = aPlan({ profile: shippedProfile("hopper-backup-3") });
const step = plan.steps.find((s) => s.effects.some((e) => e.do === "change log-in"))!;
const lineOf = (run: HandLog) => acceptanceOf(plan, run.state).find((l) => l.id === "run-log-in-1")!;

describe("a default log-in", () => {
  it("stands open from the end of the installation to the step that changes it", () => {
    const run = new HandLog(plan);
    expect(logInsOf(plan, run.state)).toMatchObject([{ since: null, changed: null, missed: false }]);
    expect(lineOf(run)).toMatchObject({ found: "", verdict: "not seen", planned: "changed" });
    run.toStep(step.id);
    const [open] = logInsOf(plan, run.state);
    expect(open).toMatchObject({ name: "backup / as printed on the console", changed: null });
    expect(open!.since).not.toBeNull();
    run.goOn();
    const [changed] = logInsOf(plan, run.state);
    // A minute for each step between the two.
    const installed = plan.steps.findLastIndex(
      (s, i) => i < plan.steps.indexOf(step) && s.effects.some((e) => e.do === "install system"),
    );
    const minutes = plan.steps.indexOf(step) - installed;
    expect(logInWords(changed!)).toBe(
      `changed; the default login was active for ${formatDuration(60 * minutes)}`,
    );
    expect(lineOf(run)).toMatchObject({ verdict: "as planned" });
  });

  it("is told, and hand-over waits for a person's word, where its step was passed over", () => {
    const run = new HandLog(plan).toStep(step.id);
    run.send({ kind: "skipped", step: step.id, reason: "no" });
    expect(run.refusals.at(-1)).toMatch(/This changes the default login backup \/ as printed on the console/);
    run.send({ kind: "skipped", step: step.id, reason: "the web page does not answer yet" });
    expect(lineOf(run)).toMatchObject({ found: "not changed by the run", verdict: "differs" });
    expect(isOpen(lineOf(run))).toBe(true);
  });

  it("that is changed on a screen of the installer never stood open, and a family without one has no line", () => {
    const nas = aPlan({ profile: shippedProfile("cistern-nas-13") });
    const run = new HandLog(nas).toStep("end");
    expect(logInsOf(nas, run.state).map(logInWords)).toEqual(["changed before the system ran"]);
    expect(logInsOf(aPlan(), new HandLog(aPlan()).state)).toEqual([]);
  });
});
