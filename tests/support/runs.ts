import type { BuildProcedure, Procedure } from "@/core/procedure";
import { addSeconds } from "@/core/units";
import { decide, foldRun, freezeBuild, type LoggedEvent, type RunCommand, type RunEvent } from "@/core/run";
import type { OperationOf, Operation } from "@/core/work";
import type { AcceptanceLine } from "@/core/verify";
import { aBuild, NOW, type BuildChanges } from "./builds";

const expected = (step: Operation): RunCommand => ({
  kind: "as expected",
  step: step.id,
  ...(step.records && { words: "on the file server, folder wrk" }),
});

/** What a console would show that does what the plan says; null where nothing is read back. */
export const readBack = (step: Operation): Extract<RunCommand, { kind: "read back" }> | null =>
  step.kind !== "read back"
    ? null
    : {
        kind: "read back",
        step: step.id,
        ...(step.asks.includes("verb") && { verb: step.verb }),
        ...(step.asks.includes("version") && { version: step.version }),
        ...(step.asks.includes("size") && { size: `${step.sizes[0]! / 1e9} GB` }),
      };

export const aPlan = (changes: BuildChanges = {}): BuildProcedure =>
  freezeBuild({ number: "B-0001", revision: "A" }, aBuild(changes));

/** A log kept by hand: each command is decided as the server would, a minute apart; refusals are collected. */
export class HandLog {
  readonly log: LoggedEvent[] = [];
  readonly refusals: string[] = [];
  constructor(readonly plan: Procedure) {
    this.append({ kind: "started", by: "J. Pell" });
  }
  get state() {
    return foldRun(this.plan.steps, this.log);
  }
  get step() {
    return this.plan.steps[this.state.current];
  }
  append(event: RunEvent): void {
    const seq = this.log.length + 1;
    this.log.push({ seq, at: addSeconds(NOW, seq * 60), key: `k${seq}`, event });
  }
  send(command: RunCommand): void {
    const decided = decide(this.plan, this.state, command, "J. Pell");
    if (decided.ok) this.append(decided.value);
    else this.refusals.push(decided.problems[0]?.message ?? "");
  }
  /** Answers the current step as an operator for whom everything goes as planned. */
  goOn(): void {
    const step = this.step;
    if (!step) return;
    this.send(
      step.kind === "name drive"
        ? { kind: "guard", step: step.id, typed: this.answer(step) }
        : (readBack(step) ?? expected(step)),
    );
  }
  /** What a console would show of a drive that this guard asks for and that was not named yet. */
  answer(guard: OperationOf<"name drive">): string {
    const named = this.state.named.filter((n) => n.group === guard.group).map((n) => n.drive);
    return guard.drives.find((d) => !named.includes(d.id))?.proof ?? "";
  }
  /** Every open line of the acceptance as planned, as a bundle of a sound machine would tell it. */
  acceptAll(changes: Record<string, Partial<AcceptanceLine>> = {}): this {
    const lines = this.plan.expectations.map(({ id, zone, what, planned }) => ({
      ...{ id, zone, what, planned, found: planned, verdict: "as planned" as const },
      ...changes[id],
    }));
    this.append({ kind: "accepted", from: "bundle.txt", lines, by: "J. Pell" });
    return this;
  }
  toStep(id: string): this {
    while (this.step && this.step.id !== id) this.goOn();
    return this;
  }
}
