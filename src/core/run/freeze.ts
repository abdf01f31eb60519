import type { BuildBasis, BuildProcedure, Procedure } from "../procedure";
import { verificationOf } from "../image";
import { contentWords, driveLook, driveName, drivesOf, machineLine, modelOf } from "../machine";
import { evaluateSheet, valuesOf, type Plan } from "../sheet";
import { dispositionOf, targetsOf, type Disposition } from "../storage";
import { fillTemplate } from "../text";
import { planExpectations } from "../verify";

const MANY = 200;

/** What becomes of the drives, as the sheet says; a record tells it from here and from nowhere else. */
function drivesOfPlan(plan: Plan): BuildBasis["drives"] {
  const fated = (fate: Disposition): string[] =>
    drivesOf(plan)
      .filter((d) => dispositionOf(d, plan.sheet.storage) === fate)
      .map((d) => driveName(d))
      .slice(0, MANY);
  return {
    target: targetsOf(plan).map(({ drive, role }) => ({
      id: drive.id,
      name: driveName(drive) + (role === "spare" ? " (spare)" : ""),
      look: driveLook(drive),
      holds: contentWords(drive),
    })),
    leftAlone: fated("leave alone"),
    free: fated("free"),
  };
}

/** The parts of a plan that a record is drawn from, as they stand now. */
function basisOf(revision: string | null, plan: Plan): BuildBasis {
  const { image, profile, sheet } = plan;
  return {
    revision: revision ?? "",
    image: { name: image?.name ?? "", check: image ? verificationOf(image) : "" },
    profile: profile ? `${profile.name} ${profile.version}` : "",
    management: profile ? fillTemplate(profile.management.address, valuesOf(plan)) : "",
    drives: drivesOfPlan(plan),
    sheet,
  };
}

/** A machine as a procedure names it. */
const machineOf = ({ machine, sheet }: Plan, model: string): Procedure["machine"] => ({
  id: sheet.machine.id,
  name: machine?.name ?? "",
  line: machine ? machineLine(machine.document.facts) : "",
  model,
  defects: (machine?.document.typed.defects ?? [])
    .filter((d) => d.mendedOn === null)
    .map((d) => `${d.what} (${d.affects})`),
});

/** Freezes what a run carries out; a later edit of the sheet does not reach it. */
export function freezeBuild(build: { number: string; revision: string | null }, plan: Plan): BuildProcedure {
  const { findings, steps } = evaluateSheet(plan);
  return {
    schemaVersion: 3,
    kind: "build",
    number: build.number,
    subject: plan.sheet.subject,
    machine: machineOf(plan, modelOf(plan)),
    site: { name: plan.site?.name ?? "", timeZone: plan.site?.timeZone ?? "UTC" },
    steps,
    expectations: planExpectations(plan),
    findings: findings.map(({ label, severity, title, says, at, waiver }) => ({
      label,
      severity,
      title,
      says,
      at,
      waiver: waiver && { reason: waiver.reason, by: waiver.by, at: waiver.at },
    })),
    basis: basisOf(build.revision, plan),
  };
}
