import { screenSteps, unattendedSteps } from "../answers";
import { armAndStart, cardSteps, mediaIn, restart, sanSteps, settings, settingsBack } from "../boot";
import { takes } from "../estimate";
import { beginning } from "../fit";
import { legViews, type LegView, type Values } from "../image";
import { imageCompared, isServed, mediumReady, wayOf } from "../media";
import { operation, type Operation } from "../work";
import { controllerSetSteps, setSteps } from "../storage";
import { fillTemplate } from "../text";
import type { Plan } from "./plan";
import { valuesOf } from "./values";

type View = LegView<Plan> & { values: Values };

/**
 * Derives the steps of a build in working order: the machine, the images, the firmware, then leg by leg the road that
 * was chosen. Same plan, same steps: nobody types them. A build without a profile has none, since only the profile
 * knows the installer's screens.
 */
export function deriveSteps(plan: Plan): Operation[] {
  const { profile, image, machine } = plan;
  if (!profile || !image || !machine) return [];
  const legs = legViews(plan).map((view): View => ({ ...view, values: valuesOf(view.plan) }));
  const withMedia = legs.findIndex((l) => l.leg.through === "installer");
  // One stick carries one image: it is written again when the leg before has been started from it.
  const waits = (i: number): boolean => wayOf(plan) === "stick" && i > withMedia;
  return [
    ...beginning(plan, isServed(plan)),
    ...legs.flatMap(imageCompared),
    ...legs.filter((_, i) => !waits(i)).flatMap(mediumReady),
    ...(legs.some((l) => l.leg.through === "installer")
      ? [settings(plan), ...cardSteps(plan), ...sanSteps(plan)]
      : []),
    ...controllerSetSteps(plan),
    ...legs.flatMap((view, i) => [...(waits(i) ? mediumReady(view) : []), ...legSteps(view)]),
    ...profile.firstBoot.flatMap((screen) => firstBoot(legs.at(-1), screen)),
    ...setSteps(plan),
    ...closing(plan),
  ];
}

const legSteps = (view: View): Operation[] =>
  isServed(view.plan)
    ? [...armAndStart(view), ...unattendedSteps(view), ...settingsBack(view.plan)]
    : attendedSteps(view);

const attendedSteps = (view: View): Operation[] => [
  ...(view.leg.through === "installer" ? mediaIn(view) : []),
  ...view.leg.screens.flatMap((screen, i, all) =>
    screenSteps(
      view,
      screen,
      "H",
      all.slice(0, i).some((s) => s.drive === "chooses"),
    ),
  ),
  ...restart(view),
];

/** First-boot work that sets the network again is left out on a road that keeps the network settings. */
function firstBoot(view: View | undefined, screen: View["leg"]["screens"][number]): Operation[] {
  if (!view) return [];
  const kept = view.leg.kind !== "fresh" && view.leg.fate.keeps.includes("network settings");
  if (kept && screen.when !== "always") return [];
  return screenSteps(view, screen, "I");
}

function closing(plan: Plan): Operation[] {
  const values = valuesOf(plan);
  const management = fillTemplate(plan.profile?.management.address ?? "", values);
  const { likely, late } = plan.profile?.restart ?? { likely: 180, late: 600 };
  return [
    operation("cold-start", "J", takes(likely + 60, late + 120, 0.2), {
      title: "Boot once from power off, without media",
      kind: "wait",
      place: "console",
      do: ["Shut down, turn the power off and on, and do not press a key."],
      sees: [
        { of: "boot", ends: "installed system" },
        { of: "address", answers: management },
      ],
      must: "Only this test shows whether the machine boots by itself after a power loss.",
      effects: [
        { do: "switch power", to: "off" },
        { do: "switch power", to: "on" },
      ],
    }),
    operation("collect", "J", takes(180, 480), {
      title: "Verify the installed system",
      kind: "collect",
      place: "console",
      do: [
        "Run the collector on the installed system and import its bundle under Acceptance below. Derrick compares it with the plan line by line.",
      ],
      sees: [{ of: "acceptance" }],
    }),
    operation("hand-over", "K", takes(300, 900), {
      title: "Hand over",
      kind: "hand over",
      do: [
        `Give the record to ${plan.sheet.handOver.owner || "the owner"}; explain how to reach the machine and where the passwords are.`,
      ],
      sees: [{ of: "address", answers: management }],
    }),
  ];
}
