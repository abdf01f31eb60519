import type { Procedure } from "../procedure";
import {
  acceptanceOf,
  decide,
  foldRun,
  isOpen,
  type LoggedEvent,
  type RunCommand,
  type RunEvent,
} from "../run";
import { addSeconds } from "../units";
import { compareWithPlan } from "../verify";
import { reportThatEnds, sightWords, type Effect, type Operation, type OperationOf } from "../work";
import { carryOut, look, worldOf, type World, type WorldGround } from "../world";
import { chance } from "./chance";
import type { Caught, Fault } from "./fault";

/** What a rehearsal shows. */
export interface Report {
  /** "not struck": the procedure has nothing in which this fault could happen. */
  end: "handed over" | "stopped" | "not struck";
  /** What noticed a fault first; null where nothing did. */
  caughtBy: Caught | null;
  /** Where it ended. */
  at: { id: string; title: string } | null;
  says: string;
  /** Drives whose contents were lost although the plan does not erase them. */
  lost: string[];
  /** Virtual seconds from the start of the run. */
  trace: { step: string; seconds: number }[];
}

const WHO = "dry run";
const START = "2000-01-01T00:00:00.000Z";

/**
 * Carries a procedure out on a world, by an operator who follows its steps and only them, sees only what the world shows,
 * and stops where a step says stop. `seed` chooses which of several places a fault strikes, and how long steps take.
 */
export function rehearse(procedure: Procedure, ground: WorldGround, fault: Fault | null, seed = 1): Report {
  const operator = new Operator(procedure, ground, fault, seed);
  while (operator.step && operator.outcome === null) operator.takeStep();
  return operator.report();
}

interface Outcome {
  caughtBy: Caught | null;
  says: string;
}

/** One run through a procedure. It keeps the world as it is beside the world as it would be without the fault. */
class Operator {
  outcome: Outcome | null = null;
  private readonly log: LoggedEvent[] = [];
  private readonly trace: Report["trace"] = [];
  private readonly next: () => number;
  private world: World;
  private planned: World;
  private seconds = 0;
  private hasStruck = false;
  private last: Operation | null = null;

  constructor(
    private readonly procedure: Procedure,
    private readonly ground: WorldGround,
    private readonly fault: Fault | null,
    seed: number,
  ) {
    this.next = chance(seed);
    this.world = worldOf(ground);
    this.planned = this.world;
    this.put({ kind: "started", by: WHO });
  }

  private get state() {
    return foldRun(this.procedure.steps, this.log);
  }

  get step(): Operation | undefined {
    return this.procedure.steps[this.state.current];
  }

  takeStep(): void {
    const { step } = this;
    if (!step) return;
    this.last = step;
    this.trace.push({ step: step.id, seconds: Math.round(this.seconds) });
    this.seconds += step.duration.likelySeconds * (0.8 + 0.4 * this.next());
    if (step.kind === "name drive") return this.nameDrive(step);
    if (step.kind === "read back") return this.readBack(step);
    for (const effect of step.effects) if (this.outcome === null) this.carryOut(effect);
    if (this.outcome !== null) return;
    if (step.kind === "collect") return this.collect(step);
    const missed = this.missing(step);
    if (missed !== null) this.stop("sight", missed);
    else this.confirm(step);
  }

  /** What a person would see that is not as the step says; null where nothing is. */
  private missing({ sees, never }: Operation): string | null {
    const lacks = sees.find((s) => look(this.world, s, this.planned) === "not seen");
    if (lacks) return `Not seen: ${sightWords(lacks)}`;
    const shows = never.find((s) => s.of !== "screen" && look(this.world, s, this.planned) === "seen");
    return shows ? `Seen: ${sightWords(shows)}` : null;
  }

  private carryOut(effect: Effect): void {
    const planned = carryOut(this.planned, effect, this.ground);
    if (planned.ok) this.planned = planned.value;
    const usual = carryOut(this.world, effect, this.ground);
    if (usual.ok) this.world = this.struckBy(effect, usual.value) ?? usual.value;
    else this.stop("sight", usual.problems[0]?.message ?? "");
  }

  /** The world in which the fault happened in place of an effect; null where it does not. */
  private struckBy(effect: Effect, usual: World): World | null {
    const strike = this.fault?.strike;
    const isByHand = this.last !== null && reportThatEnds(this.last) === null;
    if (this.hasStruck || strike?.at !== "effect" || strike.do !== effect.do) return null;
    if (this.fault?.isTyped && !isByHand) return null;
    const struck = strike.instead(this.world, effect, usual);
    this.hasStruck = struck !== null;
    return struck;
  }

  private nameDrive(step: OperationOf<"name drive">): void {
    const named = this.state.named.filter((n) => n.group === step.group).map((n) => n.drive);
    const right = step.drives.find((d) => !named.includes(d.id))?.proof ?? "";
    const { strike } = this.fault ?? {};
    const isOfMachine = step.drives.some((d) => this.world.facts.drives.some((own) => own.id === d.id));
    const shown =
      !this.hasStruck && strike?.at === "name drive" && isOfMachine ? strike.shows(this.world, step) : null;
    this.hasStruck ||= shown !== null;
    this.say({ kind: "guard", step: step.id, typed: shown ?? right }, "name drive");
  }

  private readBack(step: OperationOf<"read back">): void {
    const { strike } = this.fault ?? {};
    const shown = !this.hasStruck && strike?.at === "read back" ? strike.shows(step) : null;
    this.hasStruck ||= shown !== null;
    const { verb, version, sizes } = shown ?? step;
    this.say(
      { kind: "read back", step: step.id, verb, version, size: `${(sizes[0] ?? 0) / 1e9} GB` },
      "read back",
    );
  }

  /** The installed system is read and compared; what was not read is looked at by eye. */
  private collect(step: Operation): void {
    const now = addSeconds(START, this.seconds);
    const lines = compareWithPlan(this.procedure.expectations, this.world.facts, {
      takenAt: now,
      now,
      since: null,
    });
    this.put({ kind: "accepted", from: WHO, lines, by: WHO });
    const differs = lines.find((l) => l.verdict === "differs");
    if (differs)
      return this.stop("acceptance", `${differs.what}: planned ${differs.planned}, found ${differs.found}`);
    for (const line of acceptanceOf(this.procedure, this.state).filter(isOpen))
      this.say(
        { kind: "settled", line: line.id, how: "seen", words: "inspected in the dry run" },
        "acceptance",
      );
    this.confirm(step);
  }

  private confirm(step: Operation): void {
    const words = step.records ? { words: "in the dry run" } : {};
    this.say({ kind: "as expected", step: step.id, ...words }, "sight", reportThatEnds(step) !== null);
  }

  /** What the core makes of a command; where it refuses or stops, the rehearsal ends there. */
  private say(command: RunCommand, catching: Caught, isHeard = false): void {
    const decided = decide(this.procedure, this.state, command, WHO, isHeard);
    if (!decided.ok) return this.stop(catching, decided.problems[0]?.message ?? "");
    this.put(decided.value);
    const { status, stoppedBy } = this.state;
    if (status === "stopped") this.stop(catching, stoppedBy ?? "");
  }

  private put(event: RunEvent): void {
    const seq = this.log.length + 1;
    this.log.push({ seq, at: addSeconds(START, this.seconds), key: `r${seq}`, event });
  }

  private stop(caughtBy: Caught, says: string): void {
    this.outcome = { caughtBy, says };
  }

  report(): Report {
    const lost = this.world.lost.filter((id) => !this.planned.lost.includes(id));
    const at = this.last && { id: this.last.id, title: this.last.title };
    const { trace } = this;
    if (this.outcome) return { end: "stopped", ...this.outcome, at, lost, trace };
    const end = this.fault !== null && !this.hasStruck ? "not struck" : "handed over";
    return { end, caughtBy: null, at: null, says: "", lost, trace };
  }
}
