import { addSeconds } from "@/core/units";
import {
  decide,
  foldRun,
  freezePlan,
  type LoggedEvent,
  type RunCommand,
  type RunEvent,
  type RunPlan,
} from "@/core/run";
import { aBuild, NOW, type BuildChanges } from "./builds";

export const aPlan = (changes: BuildChanges = {}): RunPlan =>
  freezePlan({ number: "B-0001", revision: "A" }, aBuild(changes));

/** A log kept by hand: each command is decided as the server would, a minute apart; refusals are collected. */
export class HandLog {
  readonly log: LoggedEvent[] = [];
  readonly refusals: string[] = [];
  constructor(readonly plan: RunPlan) {
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
    const decided = decide(this.plan, this.state, command);
    if (decided.ok) this.append(decided.value);
    else this.refusals.push(decided.problems[0]?.message ?? "");
  }
  /** Answers the current step as an operator for whom everything goes as planned. */
  goOn(): void {
    const step = this.step;
    if (!step) return;
    if (step.guard) this.send({ kind: "guard", step: step.id, typed: step.guard.expect, by: "J. Pell" });
    else this.send({ kind: "as expected", step: step.id, by: "J. Pell" });
  }
  toStep(id: string): this {
    while (this.step && this.step.id !== id) this.goOn();
    return this;
  }
}
