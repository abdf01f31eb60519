import { deriveSteps, drivesOf, evaluateBuild, targetsOf, valuesOf, type BuildContext } from "../build";
import { verificationOf } from "../image";
import { contentWords, driveLook, driveName, machineLine } from "../machine";
import { dispositionOf, type Disposition } from "../storage";
import { fillTemplate } from "../text";
import { planExpectations } from "../verify";
import { runPlanSchema, type RunPlan } from "./events";

const MANY = 200;

/** What becomes of the drives, as the sheet says; a record tells it from here and from nowhere else. */
function drivesOfPlan(context: BuildContext): RunPlan["drives"] {
  const fated = (fate: Disposition): string[] =>
    drivesOf(context)
      .filter((d) => dispositionOf(d, context.sheet.storage) === fate)
      .map((d) => driveName(d))
      .slice(0, MANY);
  return {
    target: targetsOf(context).map(({ drive, role }) => ({
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
export function freezePlan(
  build: { number: string; revision: string | null },
  context: BuildContext,
): RunPlan {
  const { machine, image, profile, site, sheet } = context;
  const { findings } = evaluateBuild(context);
  return runPlanSchema.parse({
    schemaVersion: 1,
    number: build.number,
    revision: build.revision ?? "",
    subject: sheet.subject,
    machineName: machine?.name ?? "",
    defects: (machine?.document.typed.defects ?? [])
      .filter((d) => d.mendedOn === null)
      .map((d) => `${d.what} (${d.affects})`),
    machineLine: machine ? machineLine(machine.document.facts) : "",
    machineModel: [machine?.document.facts.chassis?.maker, machine?.document.facts.chassis?.model]
      .filter(Boolean)
      .join(" "),
    siteName: site?.name ?? "",
    timeZone: site?.timeZone ?? "UTC",
    imageName: image?.name ?? "",
    imageCheck: image ? verificationOf(image) : "",
    profileName: profile ? `${profile.name} ${profile.version}` : "",
    management: profile ? fillTemplate(profile.management.address, valuesOf(context)) : "",
    passwordRule: profile?.passwords.words ?? "",
    drives: drivesOfPlan(context),
    sheet,
    steps: deriveSteps(context),
    expectations: planExpectations(context),
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
