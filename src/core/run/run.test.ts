import fc from "fast-check";
import { describe, expect, it } from "vitest";
import type { Operation } from "../work";
import { naming, sees } from "../../../tests/support/steps";
import { readdirSync } from "node:fs";
import { aDrive, shippedProfile } from "../../../tests/support/builds";
import { aPlan, HandLog } from "../../../tests/support/runs";
import { addSeconds } from "../units";
import { acceptanceOf, decide, foldRun, logLine, nextHands, type RunCommand } from ".";

const by = "J. Pell";
const cairns = ["cairn-hypervisor-6", "cairn-hypervisor-9"].map(shippedProfile);
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
      firmware: "nothing to revert",
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

  it("shows what is set for the installation only until it is put back, also where that step was skipped", () => {
    const off = aPlan({ sheet: { "boot.secureBoot": "off to install" } });
    const found = (run: HandLog) => acceptanceOf(off, run.state).find((l) => l.id === "run-firmware");
    const run = new HandLog(off).toStep("settings-back");
    expect(run.state.strip.firmware).toBe("Secure Boot off");
    expect(found(run)).toMatchObject({ found: "Secure Boot off", verdict: "differs" });
    run.toStep("end");
    expect(found(run)).toMatchObject({ verdict: "as planned" });
    const skipped = new HandLog(off).toStep("settings-back");
    skipped.send({ kind: "skipped", step: "settings-back", reason: "later" });
    expect(found(skipped)?.verdict).toBe("differs");
    expect(acceptanceOf(plan, new HandLog(plan).state).some((l) => l.id === "run-firmware")).toBe(false);
  });

  it("is not handed over before the installed system was read back", () => {
    const run = new HandLog(plan).toStep("end");
    run.send({ kind: "handed over", to: "Control room" });
    expect(run.refusals[0]).toContain("Import its bundle first");
    run.acceptAll();
    run.send({ kind: "handed over", to: "Control room" });
    expect(run.state).toMatchObject({ status: "handed over", handedTo: "Control room" });
    run.send({ kind: "as expected", step: "hand-over" });
    expect(run.refusals[1]).toContain("only notes and corrections");
  });

  it("does not go on twice for two windows", () => {
    const run = new HandLog(plan);
    run.send({ kind: "as expected", step: "identity" });
    run.send({ kind: "as expected", step: "identity" });
    expect(run.state.current).toBe(1);
    expect(run.refusals[0]).toContain("no longer the current one");
  });
});

describe("the guard", () => {
  const atGuard = () => new HandLog(plan).toStep("guard-disk");

  it.each(["V-0001", "nv-0001", " NV-0001 "])("lets %j pass", (typed) => {
    const run = atGuard();
    run.send({ kind: "guard", step: "guard-disk", typed });
    expect(run.step?.id).toBe("screen-disk");
  });

  it.each([
    ["000009", "left-alone drive", /which is protected \(ext4 "archive"\)/],
    ["0001", "other drive", /This is not/],
    ["V-0002", "other drive", /This is not/],
  ])("stops the run at %j: %s", (typed, verdict, words) => {
    const run = atGuard();
    run.send({ kind: "guard", step: "guard-disk", typed });
    expect(run.log.at(-1)?.event).toMatchObject({ kind: "guard", verdict });
    expect(run.state.status).toBe("stopped");
    expect(run.state.stoppedBy).toMatch(words);
    run.send({ kind: "guard", step: "guard-disk", typed: "V-0001" });
    expect(run.refusals[0]).toContain("The run is stopped");
    run.send({ kind: "resumed", reason: "read the wrong line; looked again" });
    run.send({ kind: "guard", step: "guard-disk", typed: "V-0001" });
    expect(run.state).toMatchObject({ status: "running" });
    expect(run.state.deviations).toHaveLength(1);
  });

  it("cannot be skipped, expected away, or passed with a difference", () => {
    const run = atGuard();
    run.send({ kind: "as expected", step: "guard-disk" });
    run.send({ kind: "skipped", step: "guard-disk", reason: "no time" });
    run.send({ kind: "differs", step: "guard-disk", seen: "another drive", decision: "go on" });
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
      what: "Unmap the virtual CD, once the system is written to the disk",
      late: false,
    });
    expect(nextHands(plan.steps, run.state, addSeconds(begun, 1201))).toMatchObject({ late: true });
  });
});

it("has words for every event", () => {
  const run = new HandLog(plan);
  run.send({ kind: "note", step: null, text: "fan 3 is loud" });
  run.send({ kind: "reading", step: null, what: "inlet", value: "24 °C" });
  run.send({ kind: "corrected", seq: 2, text: "fan 2, not 3" });
  run.send({ kind: "differs", step: "identity", seen: "label worn", decision: "go on" });
  expect(run.log.map((l) => logLine(l.event, plan))).toEqual([
    "Started",
    "Note: fan 3 is loud",
    "Measurement: inlet 24 °C",
    "Correction of entry 2: fan 2, not 3",
    "Identify the machine: difference. label worn (continued)",
  ]);
});

it("keeps its rules in any storm of commands", () => {
  const ids = [...plan.steps.map((s) => s.id), "nonsense"];
  const command = fc.oneof(
    fc.record({
      kind: fc.constant("as expected" as const),
      step: fc.constantFrom(...ids),
    }),
    fc.record({
      kind: fc.constant("guard" as const),
      step: fc.constantFrom(...ids),
      typed: fc.constantFrom("V-0001", "000009", "x", ""),
    }),
    fc.record({
      kind: fc.constant("differs" as const),
      step: fc.constantFrom(...ids),
      seen: fc.constant("odd"),
      decision: fc.constantFrom("go on", "go back", "stop"),
    }),
    fc.record({ kind: fc.constant("resumed" as const), reason: fc.constant("looked") }),
    fc.constant("go on" as const),
  );
  fc.assert(
    fc.property(fc.array(command, { maxLength: 80 }), (commands) => {
      const run = new HandLog(plan);
      for (const c of commands) {
        if (c === "go on") run.goOn();
        else run.send(c as RunCommand);
        const { current, guardsPassed, steps } = run.state;
        for (const guarded of ["disk", "confirm"])
          if (current > plan.steps.findIndex((s) => s.id === `screen-${guarded}`))
            expect(guardsPassed).toContain(`guard-${guarded}`);
        expect(steps.filter((s) => s.state === "current").length).toBeLessThanOrEqual(1);
      }
      expect(foldRun(plan.steps, run.log)).toEqual(run.state);
      for (const { event } of run.log)
        expect(decide(plan, run.state, { kind: "note", step: null, text: logLine(event, plan) }, by).ok).toBe(
          true,
        );
    }),
    { seed: 3, numRuns: 150 },
  );
});

describe("hand-over of a wrongly built machine", () => {
  const differing = (id: string, found: string) =>
    new HandLog(plan).toStep("end").acceptAll({ [id]: { found, verdict: "differs" } });
  const handOver = (run: HandLog): string | undefined => {
    run.send({ kind: "handed over", to: "Control room" });
    return run.refusals.at(-1);
  };

  it.each([
    ["system", "Cairn Hypervisor 9.1", /System and version \(does not match/],
    ["target", "the system is mounted from SA-000009", /System drive \(does not match/],
    ["untouched-SA-000009", "nothing found", /protected \(does not match: nothing found\)/],
  ])("stops at %s that differs, until somebody takes it with a reason", (id, found, message) => {
    const run = differing(id, found);
    expect(handOver(run)).toMatch(message);
    run.send({ kind: "settled", line: id, how: "seen", words: "looked at it" });
    expect(run.refusals.at(-1)).toContain("was collected and does not match");
    run.send({ kind: "settled", line: id, how: "taken as it is", words: "ok" });
    expect(run.refusals.at(-1)).toContain("the reason is recorded");
    run.send({
      kind: "settled",
      line: id,
      how: "taken as it is",
      words: "agreed with the owner by telephone",
    });
    handOver(run);
    expect(run.state.status).toBe("handed over");
  });

  it("stops at a line that nobody saw, which a person may answer by eye", () => {
    const run = new HandLog(plan).toStep("end").acceptAll({ keyboard: { found: "", verdict: "not seen" } });
    expect(handOver(run)).toMatch(/Keyboard layout \(not verified\)/);
    run.send({ kind: "settled", line: "keyboard", how: "seen", words: "gb, typed the test line" });
    handOver(run);
    expect(run.state.settled.keyboard).toMatchObject({ how: "seen", by: "J. Pell" });
    expect(run.state.status).toBe("handed over");
  });

  it("lets another pasted output answer what was not seen, and keeps what it does not tell", () => {
    const run = new HandLog(plan).toStep("end").acceptAll({ keyboard: { found: "", verdict: "not seen" } });
    const only = (id: string, found: string) =>
      plan.expectations.map((e) => ({
        ...e,
        found: e.id === id ? found : "",
        verdict: e.id === id ? ("as planned" as const) : ("not seen" as const),
      }));
    run.append({ kind: "accepted", from: "localectl.txt", lines: only("keyboard", "gb"), by });
    handOver(run);
    expect(run.state).toMatchObject({
      status: "handed over",
      acceptance: { from: "bundle.txt; localectl.txt" },
    });
  });

  it("opens a decided line again when another reading finds something else", () => {
    const run = differing("locale", "C.UTF-8");
    run.send({ kind: "settled", line: "locale", how: "taken as it is", words: "the owner wants it so" });
    run.acceptAll({ locale: { found: "de_DE.UTF-8", verdict: "differs" } });
    expect(handOver(run)).toMatch(/Locale \(does not match: de_DE/);
  });

  it("stops at media that was left in, and at a start from power off that was skipped", () => {
    const run = new HandLog(plan).toStep("media-out");
    run.send({ kind: "skipped", step: "media-out", reason: "later" });
    expect(run.refusals[0]).toContain("Media left in place boots the installer again.");
    run.send({ kind: "skipped", step: "media-out", reason: "the controller does not answer" });
    run.toStep("cold-start");
    run.send({ kind: "skipped", step: "cold-start", reason: "" });
    run.send({ kind: "skipped", step: "cold-start", reason: "guests run on it already" });
    run.toStep("end").acceptAll();
    const said = handOver(run);
    expect(said).toMatch(/Media in the machine \(does not match/);
    expect(said).toMatch(/Boot from power off \(does not match: skipped: guests run on it already\)/);
  });

  it("takes media for left in when their removal went on with a difference", () => {
    const run = new HandLog(plan).toStep("media-out");
    const all = { kind: "differs", step: "media-out", decision: "go on" } as const;
    run.send({ ...all, seen: "x" });
    expect(run.refusals[0]).toMatch(/State why the run continues without it/);
    run.send({ ...all, seen: "the list still shows the file" });
    expect(run.state.strip).toMatchObject({ media: "cairn-9.iso mapped", nextBoot: "once: virtual CD" });
    run.toStep("end").acceptAll();
    expect(handOver(run)).toMatch(/Media in the machine \(does not match/);
  });

  it("takes media for left in when the steps that map and unmap them were both skipped", () => {
    const maps = plan.steps.find((s) => s.after.media?.endsWith("mapped"))!.id;
    const run = new HandLog(plan).toStep(maps);
    run.send({ kind: "skipped", step: maps, reason: "it was mapped yesterday" });
    run.toStep("media-out");
    run.send({ kind: "skipped", step: "media-out", reason: "the controller does not answer" });
    run.toStep("end").acceptAll();
    expect(handOver(run)).toMatch(/Media in the machine \(does not match.*Next boot \(does not match/);
  });

  it("does not pass over the saving of what is lost without a reason", () => {
    const full = aPlan({ drives: [aDrive("NV-0001", { contents: archive.contents })] });
    const run = new HandLog(full).toStep("save-lists");
    run.send({ kind: "as expected", step: "save-lists" });
    run.send({ kind: "skipped", step: "save-lists", reason: "x" });
    run.send({ kind: "differs", step: "save-lists", seen: "x", decision: "go on" });
    expect(run.refusals).toHaveLength(3);
    expect(run.step?.id).toBe("save-lists");
    run.send({ kind: "skipped", step: "save-lists", reason: "the owner wants nothing of it" });
    expect(run.step?.id).not.toBe("save-lists");
  });

  it("stops the run at the bundle of another chassis, and takes nothing of it", () => {
    const run = new HandLog(plan).toStep("end");
    run.acceptAll({ serial: { found: "OST-2", verdict: "differs" } });
    expect(run.state).toMatchObject({ status: "stopped", acceptance: null });
    expect(run.state.stoppedBy).toContain("another machine: chassis serial OST-2, planned OST-1");
  });
});

describe("a guard over a set of drives", () => {
  const set = aPlan({
    profile: shippedProfile("sedge-bsd-14"),
    drives: [aDrive("ZP-0001", { seenAs: "a" }), aDrive("ZP-0002", { seenAs: "b" }), archive],
    sheet: {
      "storage.target": "ZP-0001",
      "storage.layout": "mirror",
      "storage.partners": [{ drive: "ZP-0002", role: "member" }],
      "storage.leaveAlone": ["SA-000009"],
    },
  });
  const at = (id: string) => new HandLog(set).toStep(id);

  it("asks for each member, in any order, and not for one twice", () => {
    const run = at("guard-drives");
    run.send({ kind: "guard", step: "guard-drives", typed: "ZP-0002" });
    expect(run.step?.id).toBe("guard-drives-2");
    run.send({ kind: "guard", step: "guard-drives-2", typed: "ZP-0002" });
    expect(run.refusals[0]).toContain("This drive was already identified");
    run.send({ kind: "guard", step: "guard-drives-2", typed: "P-0001" });
    expect(run.step?.id).toBe("screen-drives");
    expect(run.log.at(-1)?.event).toMatchObject({ verdict: "passed", drive: "ZP-0001", typed: "P-0001" });
  });

  it("asks for all of them again after going back", () => {
    const run = at("screen-last-chance");
    run.send({ kind: "differs", step: "screen-last-chance", seen: "three drives", decision: "go back" });
    expect(run.step?.id).toBe("guard-last-chance");
    expect(run.state.named.map((n) => n.group)).toEqual(["drives", "drives"]);
  });

  it("names every member as the target of the plan, and in the words of the screens", () => {
    expect(set.basis.drives.target.map((d) => d.name)).toEqual([
      expect.stringContaining("…P-0001"),
      expect.stringContaining("…P-0002"),
    ]);
    const words = JSON.stringify(set.steps.flatMap((s) => [...sees(s)!, ...s.do]));
    expect(words).toContain("Pool type: mirror of 2");
    expect(words).toContain("2 drives in the list");
  });
});

it("keeps what a step asks to be written down, and does not go on without it", () => {
  const run = new HandLog(
    aPlan({ facts: { system: { osId: "cairn", osVersion: "6.7" } }, profiles: cairns }),
  );
  run.toStep("save-lists");
  run.send({ kind: "as expected", step: "save-lists" });
  expect(run.refusals[0]).toContain("Backup location");
  run.send({ kind: "as expected", step: "save-lists", words: "file server, folder wrk-hv1" });
  expect(run.state.written).toMatchObject([{ step: "save-lists", words: "file server, folder wrk-hv1", by }]);
});

it("shows the characters that a guard asks for on no step, strip or log line", () => {
  for (const file of readdirSync("profiles").map((f) => f.replace(".yaml", ""))) {
    const profile = shippedProfile(file);
    const one = aPlan({ profile, profiles: [profile] });
    const shown = one.steps.map(({ deeds: _, effects: __, ...step }) => [
      { ...step, drives: naming(step as Operation)?.drives.map((d) => [d.name, d.holds]) },
    ]);
    const strip = one.basis.drives.target.map((d) => d.look);
    const run = new HandLog(one).toStep("cold-start");
    const lines = run.log.map(({ event }) => logLine(event, one));
    expect(JSON.stringify([shown, strip, lines]), file).not.toMatch(/V-0001/i);
    expect(logLine(run.log.find((l) => l.event.kind === "guard")!.event, one, true), file).toContain(
      "V-0001",
    );
  }
});
