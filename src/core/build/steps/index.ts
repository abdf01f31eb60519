import { takes } from "../../estimate";
import { fillTemplate } from "../../text";
import type { BuildContext } from "../context";
import type { Step } from "../step";
import { valuesOf } from "../values";
import { mediaIn, restart, settings } from "./firmware";
import { legViews, wayOf, type LegView } from "./leg";
import { step } from "./make";
import { beginning, imageCompared, mediumReady } from "./preparation";
import { screenSteps } from "./screens";

/**
 * Derives the steps of a build in working order: the machine, the images, the firmware, then leg by leg the road that
 * was chosen. Same context, same steps: nobody types them. A build without a profile has none, since only the profile
 * knows the installer's screens.
 */
export function deriveSteps(context: BuildContext): Step[] {
  const { profile, image, machine } = context;
  if (!profile || !image || !machine) return [];
  const legs = legViews(context);
  const withMedia = legs.findIndex((l) => l.leg.through === "installer");
  // One stick carries one image: it is written again when the leg before has been started from it.
  const waits = (i: number): boolean => wayOf(context) === "stick" && i > withMedia;
  return [
    ...beginning(context),
    ...legs.flatMap(imageCompared),
    ...legs.filter((_, i) => !waits(i)).flatMap(mediumReady),
    ...(legs.some((l) => l.leg.through === "installer") ? [settings(context)] : []),
    ...legs.flatMap((view, i) => [...(waits(i) ? mediumReady(view) : []), ...legSteps(view)]),
    ...profile.firstBoot.flatMap((screen) => firstBoot(legs.at(-1), screen)),
    ...closing(context),
  ];
}

const legSteps = (view: LegView): Step[] => [
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
function firstBoot(view: LegView | undefined, screen: LegView["leg"]["screens"][number]): Step[] {
  if (!view) return [];
  const kept = view.leg.kind !== "fresh" && view.leg.fate.keeps.includes("network settings");
  if (kept && screen.when !== "always") return [];
  return screenSteps(view, screen, "I");
}

function closing(context: BuildContext): Step[] {
  const values = valuesOf(context);
  const management = fillTemplate(context.profile?.management.address ?? "", values);
  const { likely, late } = context.profile?.restart ?? { likely: 180, late: 600 };
  return [
    step("cold-start", "J", takes(likely + 60, late + 120, 0.2), {
      title: "Start once from power off, without media",
      kind: "wait",
      place: "console",
      do: ["Shut down, switch off, switch on, and touch nothing."],
      see: ["The system comes up by itself", management],
      must: "Whether the machine starts by itself after a loss of power is known only when it has.",
      after: { power: "on" },
    }),
    step("collect", "J", takes(180, 480), {
      title: "Read the machine back",
      kind: "read",
      place: "console",
      do: [
        "Run the collector on the installed system and drop its bundle on the acceptance below. Derrick compares it with the plan line by line.",
      ],
      see: ["Every line of the acceptance is answered"],
    }),
    step("hand-over", "K", takes(300, 900), {
      title: "Hand over",
      kind: "confirm",
      do: [
        `Hand the record to ${context.sheet.handOver.owner || "the owner"}; show how the machine is reached and where its passwords are kept.`,
      ],
      see: [management],
    }),
  ];
}
