import type { Procedure } from "@/core/procedure";
// The runs of the demo, told step by step: each command is decided by the core at its time.
import { readdirSync, readFileSync } from "node:fs";
import { identityClaims, nameClaim } from "@/core/claims";
import { parseProfileYaml, type Profile } from "@/core/image";
import {
  decide,
  foldRun,
  freezeBuild,
  installedAt,
  measuredStep,
  measuredTransfer,
  type LoggedEvent,
  type RunCommand,
  type RunEvent,
  type RunState,
} from "@/core/run";
import type { Site } from "@/core/site";
import { derive, evaluateSheet, type Plan, type Sheet } from "@/core/sheet";
import type { OperationOf } from "@/core/work";
import { inLine } from "@/core/text";
import { addSeconds } from "@/core/units";
import type { Facts, MachineDocument } from "@/core/machine";
import { compareWithPlan } from "@/core/verify";
import { images } from "./images";
import { ARKLE, at, DAY, NOW, PELL } from "./parts";
import { notesOfDemo, registerOfDemo } from "./register";
import { bk1, hv1, thoB } from "./sheets";
import { machines, sites } from "./sites";
import { wrkHv1Before } from "./works";
import { coldLaneBackup, coldLaneBackupBefore, thornhopeB, thornhopeBBefore } from "./stations";

export const profiles = readdirSync("profiles").map((name) => {
  const yaml = readFileSync(`profiles/${name}`, "utf8");
  const read = parseProfileYaml(yaml);
  if (!read.ok) throw new Error(`${name}: ${read.problems[0]?.message}`);
  return { yaml, profile: read.value };
});

/** `before` is the machine as it was then, where its build has changed it since. */
function contextFor(sheet: Sheet, now: string, before?: MachineDocument): Plan {
  const machine = machines.find((m) => m.id === sheet.machine.id);
  const found = images.find((i) => i.id === sheet.image.id)?.document ?? null;
  const rivals = machines
    .filter((m) => m !== machine)
    .flatMap((m) =>
      [...identityClaims(m.document), ...nameClaim(m.document.facts.system?.hostName ?? "")].map((claim) => ({
        ...{ ...claim, owner: m.name, here: true },
      })),
    );
  return derive({
    now,
    sheet,
    machine: machine ? { name: machine.name, document: before ?? machine.document } : null,
    site: sites.find((s) => s.id === machine?.siteId)?.document as Site,
    image: found,
    profile: profiles.find(
      (p) => p.profile.profile === found?.profile && inLine(found.version, p.profile.version),
    )?.profile as Profile,
    rivals,
    profiles: profiles.map((p) => p.profile),
    shelf: images.map(({ id, document }) => ({ id, image: document })),
    sticks: registerOfDemo(machines).filter((d) => d.entry.media === "usb"),
    samples: [],
    times: [],
    edition: null,
    pasts: [],
    secrets: [],
    circuit: null,
    compat: notesOfDemo.map((n) => n.note).filter((n) => n.profile === found?.profile),
  });
}

/** A log as an operator would have made it: each command decided by the core at its time. */
class Teller {
  readonly log: LoggedEvent[] = [];
  constructor(
    readonly plan: Procedure,
    private clock: string,
    readonly by: string,
  ) {
    this.put({ kind: "started", by });
  }
  private put(event: RunEvent): void {
    this.log.push({
      seq: this.log.length + 1,
      at: this.clock,
      key: `demo-${String(this.log.length + 1).padStart(4, "0")}`,
      event,
    });
  }
  wait(seconds: number): this {
    this.clock = addSeconds(this.clock, seconds);
    return this;
  }
  say(command: RunCommand): this {
    const decided = decide(this.plan, foldRun(this.plan.steps, this.log), command, this.by);
    if (!decided.ok) throw new Error(decided.problems[0]?.message);
    this.put(decided.value);
    return this;
  }
  note(text: string): this {
    return this.say({ kind: "note", step: this.step?.id ?? null, text });
  }
  get step() {
    return this.plan.steps[foldRun(this.plan.steps, this.log).current];
  }
  private answer(guard: OperationOf<"name drive">): string {
    const { named } = foldRun(this.plan.steps, this.log);
    const before = named.filter((n) => n.group === guard.group).map((n) => n.drive);
    return guard.drives.find((d) => !before.includes(d.id))?.proof ?? "";
  }
  /** What a console shows that does what the plan says. */
  private readBack(): RunCommand | null {
    if (this.step?.kind !== "read back") return null;
    const { id, verb, version, sizes } = this.step;
    return { kind: "read back", step: id, verb, version, size: `${Math.round((sizes[0] ?? 0) / 1e9)} GB` };
  }
  /** Goes on as expected up to a step, each step taking its likely time, more or less. */
  to(id: string): this {
    for (let i = 0; this.step && this.step.id !== id; i += 1) {
      this.wait(this.step.duration.likelySeconds * (0.8 + ((i * 7) % 5) / 10));
      this.say(
        this.step.kind === "name drive"
          ? { kind: "guard", step: this.step.id, typed: this.answer(this.step) }
          : (this.readBack() ?? {
              kind: "as expected",
              step: this.step.id,
              ...(this.step.records && { words: "file server, folder " + this.plan.machine.name }),
            }),
      );
    }
    return this;
  }
  /** A bundle of the installed system is compared as the application would, with what it did not tell left out. */
  accept(facts: Facts, from: string): this {
    const state = foldRun(this.plan.steps, this.log);
    const reading = { takenAt: this.clock, now: this.clock, since: installedAt(this.plan, state) };
    const lines = compareWithPlan(this.plan.expectations, facts, reading);
    this.put({ kind: "accepted", from, lines, by: this.by });
    return this;
  }
  settle(line: string, how: "seen" | "taken as it is", words: string): this {
    return this.say({ kind: "settled", line, how, words });
  }
}

/** A sheet whose waivers hold for what they were given for, as they do when a person gives them. */
function signed(sheet: Sheet): Sheet {
  const { findings } = evaluateSheet(contextFor(sheet, at(60), wrkHv1Before));
  const basis = (key: string): string | null => findings.find((f) => f.key === key)?.basis ?? null;
  return { ...sheet, waivers: sheet.waivers.map((w) => ({ ...w, basis: basis(w.key) })) };
}
export const signedHv1 = signed(hv1);

export const planHv1 = freezeBuild(
  { number: "B-0041", revision: "B" },
  contextFor(signedHv1, at(60), wrkHv1Before),
);
const tellHv1 = (startMinutesAgo: number): Teller => {
  const teller = new Teller(planHv1, at(startMinutesAgo), ARKLE).to("firmware");
  teller.to("stone1-media-in").wait(40).say({
    kind: "differs",
    step: "stone1-media-in",
    seen: "the console session was interrupted while mapping; mapped again",
    decision: "go on",
  });
  teller
    .to("stone1-restart")
    .wait(60)
    .note(
      "Boot module shows: mirror degraded, secondary card syncing 38 %. Expected until about 14:50; a fault after that.",
    )
    .to("screen-disk")
    .wait(40)
    .say({ kind: "reading", step: "screen-disk", what: "inlet temperature", value: "23 °C" });
  return teller.to("screen-writing");
};
// Start so long ago that the writing has been going on for two minutes when the demo opens.
const first = tellHv1(200);
const secondsTaken = (Date.parse(first.log.at(-1)?.at ?? NOW) - Date.parse(first.log[0]?.at ?? NOW)) / 1000;
export const runHv1 = tellHv1(secondsTaken / 60 + 2);

const installed = (document: MachineDocument, changes: Partial<Facts["system"]> = {}): Facts => ({
  ...document.facts,
  system: { ...document.facts.system, ...changes },
});

export const planB = freezeBuild(
  { number: "B-0038", revision: "A" },
  contextFor(thoB, at(22 * DAY), thornhopeBBefore),
);
export const runB = new Teller(planB, at(22 * DAY + 400), PELL).to("collect");
runB.wait(120).accept(installed(thornhopeB, { keyboard: "us" }), "tho-b-installed.txt");
runB.wait(60).note("Console keyboard layout was us; set to gb, and checked again.");
runB.wait(90).accept(installed(thornhopeB), "tho-b-again.txt");
runB.settle("secure-boot", "seen", "the firmware setup shows: enabled, user mode");
runB.to("end").wait(300).say({ kind: "handed over", to: "Pump crew" });

export const planBk1 = freezeBuild(
  { number: "B-0031", revision: "A" },
  contextFor(bk1, at(31 * DAY), coldLaneBackupBefore),
);
export const runBk1 = new Teller(planBk1, at(31 * DAY + 300), PELL).to("first-store");
runBk1
  .wait(30)
  .say({ kind: "skipped", step: "first-store", reason: "the only drive of the machine holds the store" })
  .to("collect");
runBk1.wait(150).accept(installed(coldLaneBackup), "cl-bk1-installed.txt");
runBk1
  .wait(60)
  .note(
    "Root volume left at the default of the installer, 107 GB of 4.00 TB. It can be extended while mounted.",
  )
  .to("end");
runBk1.wait(300).say({ kind: "handed over", to: "Office" });

const runsOfDemo = [
  { run: "r-wrk-hv1", plan: planHv1, log: runHv1.log },
  { run: "r-tho-b", plan: planB, log: runB.log },
  { run: "r-cl-bk1", plan: planBk1, log: runBk1.log },
];

/** What the runs measured at each step that ended as expected, as the application would have kept it. */
const measured = <T>(read: (plan: Procedure, state: RunState, at: string) => ({ step: string } & T) | null) =>
  runsOfDemo.flatMap(({ run, plan, log }) =>
    log.flatMap((entry, i) => {
      if (entry.event.kind !== "as expected") return [];
      const learned = read(plan, foldRun(plan.steps, log.slice(0, i)), entry.at);
      return learned ? [{ runId: run, ...learned }] : [];
    }),
  );
export const transfers = measured(measuredTransfer).map(({ runId, step, sample }) => ({
  runId,
  step,
  ...sample,
}));
export const times = measured(measuredStep).map(({ runId, step, time }) => ({ runId, step, ...time }));
