import { sumDurations } from "../estimate";
import { numberFindings, openStops, runChecks, type PlacedFinding, type Zone } from "../finding";
import { serialTail } from "../machine";
import type { Summary } from "../stage";
import type { Operation } from "../work";
import { erasedDrives, idsOf, targetSeats, targetsOf, wantsConsent } from "../storage";
import { SHEET_CHECKS, SHEET_MESSAGES } from "./checks";
import type { Plan } from "./plan";
import { STAGES } from "./stages";
import { deriveSteps } from "./steps";

/** How a stage stands on the line: settled is tight, open hangs loose, a stop bends it. */
export interface StageState {
  zone: Zone;
  title: string;
  state: "settled" | "open" | "stopped" | "folded";
  /** The decision of the stage in one line of plain words. */
  summary: string;
}

export interface Evaluation {
  findings: PlacedFinding[];
  stops: PlacedFinding[];
  steps: Operation[];
  totals: ReturnType<typeof sumDurations>;
  stages: StageState[];
  /** The first stage that is not settled: where the build hangs now. */
  hook: Zone;
}

/** Everything that follows from a sheet: findings, steps, times, and how each stage stands. */
export function evaluateSheet(plan: Plan): Evaluation {
  const findings = numberFindings(
    runChecks(SHEET_CHECKS, SHEET_MESSAGES, plan, (zone) => aboutOf(plan, zone)),
    plan.sheet.waivers,
  ).map((finding) => withoutAnswers(plan, finding));
  const steps = deriveSteps(plan);
  const stops = openStops(findings);
  const ground = { ...plan, steps };
  const stages = STAGES.map((stage): StageState => {
    const { summary, decided }: Summary = stage.summary(ground);
    const stopped = stops.some((f) => f.zone === stage.zone);
    return {
      zone: stage.zone,
      title: stage.title,
      summary,
      state: decided === "not here" ? "folded" : stopped ? "stopped" : decided ? "settled" : "open",
    };
  });
  const hook = stages.find((s) => s.state === "stopped" || s.state === "open")?.zone ?? "H";
  return { findings, stops, steps, totals: sumDurations(steps.map((s) => s.duration)), stages, hook };
}

/** What lists show of a sheet. */
export interface SheetMark {
  hook: Zone;
  /** The stage that comes next, as its zone is called: "H Run". */
  next: string;
  stops: number;
  cautions: number;
  firstStop: { label: string; title: string; says: string } | null;
  likelySeconds: number;
}

export const markOf = ({ hook, stops, findings, totals }: Evaluation): SheetMark => ({
  hook,
  next: `${hook} ${STAGES.find((s) => s.zone === hook)!.title}`,
  stops: stops.length,
  cautions: findings.filter((f) => f.severity === "caution" && !f.waiver).length,
  firstStop: stops[0] ? { label: stops[0].label, title: stops[0].title, says: stops[0].says } : null,
  likelySeconds: totals.likelySeconds,
});

/** What the findings of a zone are about beside their own facts: when it changes, a waiver ends. */
function aboutOf({ sheet }: Plan, zone: Zone): string {
  // Names, addresses and accounts stay what they are under another image; what hardware and media do does not.
  const image = "ABCD".includes(zone) ? sheet.image.id : null;
  const { storage } = sheet;
  const drives =
    zone === "D" ? [...targetSeats(storage).map((s) => s.drive), ...storage.sets.flatMap(idsOf)] : [];
  return [sheet.machine.id, image, ...drives].filter(Boolean).join(" ");
}

/** While the sheet asks for the serial of a drive, nothing beside the question tells it. */
function withoutAnswers(plan: Plan, finding: PlacedFinding): PlacedFinding {
  const named = [...targetsOf(plan).map((t) => t.drive), ...erasedDrives(plan)];
  const answers = named
    .filter((drive) => wantsConsent(plan, drive))
    .flatMap((drive) => [drive.serial, drive.wwn, serialTail(drive)].filter((a): a is string => Boolean(a)));
  const hide = (text: string): string => answers.reduce((t, a) => t.replaceAll(a, "…"), text);
  return {
    ...finding,
    says: hide(finding.says),
    evidence: finding.evidence.map((e) => ({ ...e, value: hide(e.value) })),
  };
}
