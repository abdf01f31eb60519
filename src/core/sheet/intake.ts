import type { Zone } from "../finding";
import { legViews, type LegView, type Profile } from "../image";
import { fillTemplate, placeholdersOf } from "../text";
import type { Plan } from "./plan";
import { STAGES } from "./stages";
import { valuesOf } from "./values";

/** Something that a screen of the installer, or of the first start, asks for and the sheet decides. */
export interface Asked {
  screen: string;
  label: string;
  /** What is typed there; null where the sheet has not decided it. For a secret, where it is kept. */
  value: string | null;
  isSecret: boolean;
  /** Where the sheet decides it. */
  zone: Zone;
}

/** All that is asked in a build, in the order of its screens, and what of it nobody has decided. */
export interface Intake {
  asked: Asked[];
  open: Asked[];
}

type Screen = Profile["screens"][number];

/** The stage that decides a value, by who gives it. */
function zonesOf(plan: Plan): (placeholder: string | undefined) => Zone {
  const zones = new Map(
    STAGES.flatMap((stage) => Object.keys(stage.values(plan)).map((key) => [key, stage.zone] as const)),
  );
  return (placeholder = "") => zones.get(placeholder) ?? "A";
}

function askedOn(screen: Screen, plan: Plan, zoneOf: ReturnType<typeof zonesOf>): Asked[] {
  const isFixed = plan.sheet.network.school === "fixed";
  if (screen.when !== "always" && (screen.when === "fixed address") !== isFixed) return [];
  const values: Readonly<Record<string, string>> = valuesOf(plan);
  const one = (label: string, template: string, isSecret: boolean): Asked[] => {
    const named = placeholdersOf(template);
    // What is typed whatever the sheet says is no answer of it.
    if (named.length === 0) return [];
    const open = named.filter((name) => !values[name]);
    return [
      {
        ...{ screen: fillTemplate(screen.title, values), label, isSecret },
        value: open.length > 0 ? null : fillTemplate(template, values),
        zone: zoneOf(open[0] ?? named[0]),
      },
    ];
  };
  return [
    ...screen.type.flatMap(({ label, value }) => one(label, value, false)),
    ...screen.secret.flatMap((template) => one("secret", template, true)),
  ];
}

/** The screens of the first start that come after the last leg: what was kept is not set again. */
const firstScreens = (profile: Profile, last: LegView<Plan>): Screen[] =>
  profile.firstBoot.filter(
    ({ when }) =>
      when === "always" || last.leg.kind === "fresh" || !last.leg.fate.keeps.includes("network settings"),
  );

/**
 * What will be asked at the screens of a build, and what of it nobody has decided: it is known before the installer asks.
 * Null while no machine or no image with a profile is chosen, since then nobody knows what will be asked.
 */
export function intakeOf(plan: Plan): Intake | null {
  const { profile, image, machine } = plan;
  if (!profile || !image || !machine) return null;
  const views = legViews(plan);
  const last = views.at(-1);
  if (!last) return null;
  const zoneOf = zonesOf(plan);
  const asked = [
    ...views.flatMap((view) => view.leg.screens.flatMap((screen) => askedOn(screen, view.plan, zoneOf))),
    ...firstScreens(profile, last).flatMap((screen) => askedOn(screen, last.plan, zoneOf)),
  ];
  return { asked, open: asked.filter(({ value }) => value === null) };
}
