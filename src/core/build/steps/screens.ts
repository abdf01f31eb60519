import { discEstimate, mediaEstimate, networkEstimate } from "../../boot";
import { learnStep, takes } from "../../estimate";
import type { Screen } from "../../image";
import { registerKey } from "../../machine";
import { fillTemplate, UNDECIDED } from "../../text";
import { targetsOf, type BuildContext } from "../context";
import { keepsSystem } from "../roads";
import type { Step } from "../step";
import { valuesOf } from "../values";
import { guardsBefore, lacksDrives } from "./guards";
import { movesOf, wayOf, type LegView } from "./leg";
import { HAZARD, step } from "./make";

/** The steps of one screen; guards go before one that chooses or writes a drive. */
export function screenSteps(
  { context, prefix, leg, last }: LegView,
  screen: Screen,
  zone: "H" | "I",
  chosenBefore = false,
): Step[] {
  const dynamic = context.sheet.network.school !== "fixed";
  if (screen.when === "fixed address" && dynamic) return [];
  if (screen.when === "dynamic address" && !dynamic) return [];
  const values = valuesOf(context);
  const fill = (text: string): string => fillTemplate(text, values);
  const typed = screen.type.map((t) => ({ label: t.label, value: fill(t.value) }));
  const open = typed.filter((t) => t.value.includes(UNDECIDED)).map((t) => t.label);
  const { passwords } = leg.profile;
  const isFirst = zone === "H" && screen === leg.screens[0] && leg.through === "installer";
  const consoleKeys = isFirst ? leg.profile.consoleKeys.map((k) => `${k.keys}: ${k.opens}.`) : [];
  const named = screen.wait ? `${leg.profile.profile} ${leg.profile.version} ${screen.id}` : "";
  const { duration, figure, runs } = screenDuration(context, screen, named);
  const login = leg.profile.defaultLogins.find((l) => l.changedOn === screen.id);
  const made = step(`${prefix}${zone === "H" ? "screen" : "first"}-${screen.id}`, zone, duration, {
    title: fill(screen.title) + (last ? "" : ` (${leg.profile.name} ${leg.version})`),
    kind: screen.wait ? "wait" : screen.type.length > 0 || screen.secret.length > 0 ? "type" : "act",
    place: "console",
    see: screen.see.map(fill),
    never: screen.never.map(fill),
    do: [
      ...screen.do.map(fill),
      ...(open.length > 0
        ? [`The plan does not decide: ${open.join(", ")}. Ask before anything is typed there.`]
        : []),
      ...(screen.secret.length > 0
        ? [
            `The password has at least ${passwords.leastLength} characters${passwords.classes > 1 ? ` of ${passwords.classes} kinds (capitals, small letters, digits, signs)` : ""}.`,
          ]
        : []),
      ...consoleKeys,
      ...(login ? [`This changes the default log-in ${login.name}, which opens ${login.opens}.`] : []),
      ...(lacksDrives(context, screen)
        ? ["The plan frees no drive for this: choose none, and skip this step with its reason."]
        : []),
    ],
    type: typed.filter((t) => !t.value.includes(UNDECIDED)),
    secret: screen.secret.map(fill),
    keys: screen.keys,
    expected: screen.expected,
    hazards: screen.destroys
      ? [HAZARD.erase]
      : screen.drive === "writes" && keepsSystem(context)
        ? [HAZARD.change]
        : [],
    figure,
    // Where the screen itself takes longer than the transfer, its time says nothing about the rate.
    moves: figure && runs === 0 ? movesOf(context, screen.readsShare) : null,
    screen: named,
    runs,
    after: effectOf(screen, zone),
    does: screen.destroys ? overwritten(context) : null,
  });
  return [...guardsBefore(context, screen, { prefix, zone, chosenBefore }), made];
}

const overwritten = (context: BuildContext): Step["does"] => ({
  kind: "drives overwritten",
  drives: targetsOf(context).flatMap(({ drive }) => registerKey(drive) ?? []),
  by: context.image?.name ?? "the installation",
});

function effectOf(screen: Screen, zone: "H" | "I"): Step["after"] {
  if (screen.wait && zone === "H" && screen.readsShare < 1) return { target: "installed" };
  return screen.drive === "chooses" || screen.drive === "writes" ? { target: "at risk" } : {};
}

/**
 * The profile's time as own runs have corrected it, or the time that the share of the image takes on this way, whichever
 * is longer.
 */
function screenDuration(
  context: BuildContext,
  screen: Screen,
  named: string,
): Pick<Step, "duration" | "figure" | "runs"> {
  const usual = takes(screen.likely, screen.late, screen.wait ? 0.05 : 1);
  const { chassis } = context.machine?.document.facts ?? {};
  const model = [chassis?.maker, chassis?.model].filter(Boolean).join(" ");
  const own = named ? learnStep(usual, named, model, context.times) : null;
  const plain = own?.duration ?? usual;
  const alone = { duration: plain, figure: own?.figure ?? null, runs: own?.runs ?? 0 };
  const way = wayOf(context);
  if (screen.readsShare === 0 || !context.image || way === "stick") return alone;
  const bytes = context.image.sizeBytes * screen.readsShare;
  const ground = {
    facts: context.machine?.document.facts ?? null,
    samples: context.samples,
    site: context.site,
  };
  const { duration, figure } =
    way === "virtual media"
      ? mediaEstimate(bytes, ground)
      : way === "network"
        ? networkEstimate(bytes, ground)
        : discEstimate(bytes);
  if (duration.likelySeconds <= plain.likelySeconds) return alone;
  return {
    duration: {
      ...duration,
      lateSeconds: Math.max(duration.lateSeconds, plain.lateSeconds),
      handsShare: plain.handsShare,
    },
    figure,
    runs: 0,
  };
}
