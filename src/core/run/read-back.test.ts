import { describe, expect, it } from "vitest";
import { asked, naming } from "../../../tests/support/steps";
import { aPlan, HandLog, readBack } from "../../../tests/support/runs";
import { logLine } from "./log-line";
import { compareReadBack } from "./read-back";

type Asked = Parameters<typeof compareReadBack>[0];
const PLAN: Asked = {
  asks: ["verb", "version", "size"],
  verb: "install",
  version: "9.0.2",
  sizes: [240_057_409_536],
};
const typed = (changes: object = {}) => ({
  verb: "install" as const,
  version: "9.0.2",
  size: "240 GB",
  ...changes,
});
const differs = (changes: object, plan: Partial<Asked> = {}): string[] | string => {
  const read = compareReadBack({ ...PLAN, ...plan }, typed(changes));
  return read.ok ? read.value : read.problems.map((p) => p.message).join(" ");
};

describe("what the console is about to do, beside the plan", () => {
  it.each([
    ["240 GB"],
    ["240GB"],
    ["223.6 GiB"],
    ["223.57 GB"],
    ["0.24 TB"],
    ["240 057 MB"],
    ["240057409536"],
    ["240,1 GB"],
  ])("takes %s for the planned drive of 240 GB", (size) => expect(differs({ size })).toEqual([]));

  it.each([["250 GB"], ["480 GB"], ["232.8 GiB"], ["1 TB"], ["120 GB"], ["224 MB"]])(
    "tells a drive of %s from it",
    (size) => expect(differs({ size })).toEqual(["size"]),
  );

  it.each([
    ["9.0.2", "9.0.2", true],
    ["Version 9.0.2 build 2201", "9.0.2", true],
    ["9.0", "9.0.2", true],
    ["9.0.2.1", "9.0.2", true],
    ["9", "9.0.2", false],
    ["9.0.1", "9.0.2", false],
    ["9.1", "9.0.2", false],
    ["6.7", "9.0.2", false],
    ["12", "12", true],
    ["12.4", "12", true],
    ["13", "12", false],
  ])("version %s against the planned %s: %s", (version, planned, same) =>
    expect(differs({ version }, { version: planned })).toEqual(same ? [] : ["version"]),
  );

  it("tells an upgrade from an installation, whatever else agrees", () => {
    expect(differs({ verb: "upgrade" })).toEqual(["verb"]);
    expect(differs({ verb: "install" }, { verb: "upgrade" })).toEqual(["verb"]);
  });

  it("asks again for what cannot be compared, and calls it no difference", () => {
    expect(differs({ verb: undefined })).toMatch(/Choose what the console is about to do/);
    expect(differs({ version: "the newest" })).toMatch(/in digits/);
    expect(differs({ size: "240", version: "" })).toMatch(/in digits/);
    expect(differs({ size: "240 G" })).toMatch(/with its unit/);
  });
});

describe("the gate in a run", () => {
  const gate = () => {
    const run = new HandLog(aPlan());
    while (run.step && !asked(run.step)) run.goOn();
    return run;
  };

  it("stands right before the key, shows none of its answer, and is not passed without it", () => {
    const run = gate();
    const step = run.step!;
    const { kind: _, asks: __, verb: ___, version: ____, sizes: _____, ...shown } = asked(step)!;
    expect(asked(step)).toMatchObject({ asks: ["verb", "version", "size"], verb: "install" });
    expect(JSON.stringify(shown)).not.toMatch(/GB|GiB|\d\.\d|[Ii]nstall|[Uu]pgrade/);
    expect(run.plan.steps[run.state.current + 1]!.effects).toContainEqual(
      expect.objectContaining({ do: "write drives", of: "target" }),
    );
    const before = run.state.current;
    run.send({ kind: "as expected", step: step.id });
    run.send({ kind: "skipped", step: step.id, reason: "in a hurry tonight" });
    run.send({ kind: "differs", step: step.id, seen: "something else", decision: "go on" });
    run.send({ kind: "guard", step: step.id, typed: "240" });
    expect(run.refusals).toHaveLength(4);
    expect(run.state.current).toBe(before);
  });

  it("stops at an upgrade where the plan installs, says nothing of what was planned, and goes on when it is right", () => {
    const run = gate();
    const step = run.step!;
    const right = readBack(step)!;
    run.send({ ...right, verb: "upgrade", version: "6.7" });
    expect(run.state.status).toBe("stopped");
    expect(run.state.stoppedBy).toBe(
      "The console is about to do something else than planned: operation (upgrade), version (6.7). Do not press a key that continues; go back on the console, and check the choices.",
    );
    expect(run.state.deviations.at(-1)).toMatchObject({ step: step.id, decision: "stop" });
    run.send({ kind: "resumed", reason: "chose the fresh installation" });
    run.send(right);
    expect(run.step!.id).toBe("screen-confirm");
    const lines = run.log.map((l) => logLine(l.event, run.plan, true));
    expect(lines.at(-1)).toMatch(/^Verify what the console is about to do: verified \(install · /);
    expect(logLine(run.log.at(-1)!.event, run.plan)).not.toContain("install ·");
  });

  it("is asked again when somebody goes back", () => {
    const run = gate();
    run.goOn();
    expect(run.step!.id).toBe("screen-confirm");
    run.send({ kind: "differs", step: "screen-confirm", seen: "the page went away", decision: "go back" });
    while (naming(run.step)) run.goOn();
    expect(asked(run.step)).toBeDefined();
    expect(run.state.guardsPassed).not.toContain(run.step!.id);
  });
});
