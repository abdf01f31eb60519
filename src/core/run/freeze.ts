import { verificationOf } from "../image";
import { contentWords, driveLook, driveName, drivesOf, machineLine, modelOf } from "../machine";
import { evaluateSheet, valuesOf, type Plan } from "../sheet";
import { dispositionOf, targetsOf, type Disposition } from "../storage";
import { fillTemplate } from "../text";
import { planExpectations } from "../verify";
import { runPlanSchema, type RunPlan } from "./events";

const MANY = 200;

/** What becomes of the drives, as the sheet says; a record tells it from here and from nowhere else. */
function drivesOfPlan(plan: Plan): RunPlan["drives"] {
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

/** Freezes what a run carries out; a later edit of the sheet does not reach it. */
export function freezePlan(build: { number: string; revision: string | null }, plan: Plan): RunPlan {
  const { machine, image, profile, site, sheet } = plan;
  const { findings, steps } = evaluateSheet(plan);
  return runPlanSchema.parse({
    schemaVersion: 2,
    number: build.number,
    revision: build.revision ?? "",
    subject: sheet.subject,
    machineName: machine?.name ?? "",
    defects: (machine?.document.typed.defects ?? [])
      .filter((d) => d.mendedOn === null)
      .map((d) => `${d.what} (${d.affects})`),
    machineLine: machine ? machineLine(machine.document.facts) : "",
    machineModel: modelOf(plan),
    siteName: site?.name ?? "",
    timeZone: site?.timeZone ?? "UTC",
    imageName: image?.name ?? "",
    imageCheck: image ? verificationOf(image) : "",
    profileName: profile ? `${profile.name} ${profile.version}` : "",
    management: profile ? fillTemplate(profile.management.address, valuesOf(plan)) : "",
    passwordRule: profile?.passwords.words ?? "",
    drives: drivesOfPlan(plan),
    sheet,
    steps,
    expectations: planExpectations(plan),
    findings: findings.map(({ label, severity, title, says, at, waiver }) => ({
      label,
      severity,
      title,
      says,
      at,
      waiver,
    })),
  });
}
