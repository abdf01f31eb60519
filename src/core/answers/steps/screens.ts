import { learnStep, takes, type StepTime } from "../../estimate";
import type { Leg, LegView, Screen, Values } from "../../image";
import { modelOf, registerKey } from "../../machine";
import { discEstimate, mediaEstimate, movesOf, networkEstimate, wayOf, type MediaGround } from "../../media";
import { HAZARD, operation, type Deed, type Operation, type Sight } from "../../work";
import { guardsBefore, lacksDrives, setLines, targetsOf, type StorageGround } from "../../storage";
import { fillTemplate, UNDECIDED } from "../../text";
import { screenEffects, type EffectGround } from "./effects";

/** What the steps of an installer's screens are made from. */
export interface ScreenGround extends MediaGround {
  sheet: MediaGround["sheet"] & StorageGround["sheet"] & EffectGround["sheet"];
  /** How long waits of own runs took. */
  times: readonly StepTime[];
}

type View = LegView<ScreenGround> & { values: Values };

/** The steps of one screen; guards go before one that chooses or writes a drive. */
export function screenSteps(
  { plan, prefix, leg, last, values }: View,
  screen: Screen,
  zone: "H" | "I",
  chosenBefore = false,
): Operation[] {
  const dynamic = plan.sheet.network.school !== "fixed";
  if (screen.when === "fixed address" && dynamic) return [];
  if (screen.when === "dynamic address" && !dynamic) return [];
  const fill = (text: string): string => fillTemplate(text, values);
  const shows = (text: string): Sight => ({ of: "screen", screen: screen.id, shows: fill(text) });
  const typed = screen.type.map((t) => ({ label: t.label, value: fill(t.value) }));
  const open = typed.filter((t) => t.value.includes(UNDECIDED)).map((t) => t.label);
  const { passwords } = leg.profile;
  const isFirst = zone === "H" && screen === leg.screens[0] && leg.through === "installer";
  const consoleKeys = isFirst ? leg.profile.consoleKeys.map((k) => `${k.keys}: ${k.opens}.`) : [];
  const named = screen.wait ? `${leg.profile.profile} ${leg.profile.version} ${screen.id}` : "";
  const { duration, figure, runs } = screenDuration(plan, screen, named);
  const login = leg.profile.defaultLogins.find((l) => l.changedOn === screen.id);
  const made = operation(`${prefix}${zone === "H" ? "screen" : "first"}-${screen.id}`, zone, duration, {
    title: fill(screen.title) + (last ? "" : ` (${leg.profile.name} ${leg.version})`),
    kind: screen.wait ? "wait" : "act",
    origin: { of: "screen", screen: screen.id, at: zone === "H" ? "installer" : "first start" },
    place: "console",
    sees: screen.see.map(shows),
    never: screen.never.map(shows),
    do: [
      ...screen.do.map(fill),
      ...(open.length > 0
        ? [`Not decided in the plan: ${open.join(", ")}. Clarify before you type there.`]
        : []),
      ...(screen.secret.length > 0
        ? [
            `The password needs at least ${passwords.leastLength} characters${passwords.classes > 1 ? ` of ${passwords.classes} classes (upper case, lower case, digits, symbols)` : ""}.`,
          ]
        : []),
      ...consoleKeys,
      ...(login ? [`This changes the default login ${login.name}, account ${login.opens}.`] : []),
      ...(screen.drive === "others" ? setLines(plan) : []),
      ...(lacksDrives(plan, screen)
        ? ["The plan has no free drive for this: choose none, and skip this step with a reason."]
        : []),
    ],
    lines: typed.filter((t) => !t.value.includes(UNDECIDED)),
    secrets: screen.secret.map(fill),
    keys: screen.keys,
    normal: screen.expected.map(({ looks, means }) => ({ sight: shows(looks), means })),
    must: login ? `This changes the default login ${login.name}, which is publicly known.` : "",
    hazards: screen.destroys
      ? [HAZARD.erase]
      : screen.drive === "writes" && plan.keepsSystem
        ? [HAZARD.change]
        : [],
    figure,
    measures: [
      ...(named ? [{ of: "wait" as const, what: named }] : []),
      // Where the screen itself takes longer than the transfer, its time says nothing about the rate.
      ...(figure && runs === 0 ? movesOf(plan, screen.readsShare) : []),
    ],
    runs,
    effects: screenEffects(plan, leg, screen, zone),
    deeds: screen.destroys ? [overwritten(plan)] : [],
  });
  return [
    ...guardsBefore(plan, screen, { prefix, zone, chosenBefore }),
    ...readBackBefore(plan, screen, leg, { prefix, zone }),
    made,
  ];
}

/**
 * Before the key after which there is no way back, what the page says that it will do is compared with the plan: by what is
 * typed, since a page that is only looked at is taken for the one that was expected.
 */
function readBackBefore(
  plan: ScreenGround,
  screen: Screen,
  leg: Leg,
  { prefix, zone }: { prefix: string; zone: "H" | "I" },
): Operation[] {
  const sizes = targetsOf(plan).flatMap(({ drive }) => (drive.sizeBytes ? [drive.sizeBytes] : []));
  const version = plan.image?.version || leg.version;
  const asks = screen.reads.filter(
    (part) => part === "verb" || (part === "size" ? sizes.length > 0 : /\d/.test(version)),
  );
  if (asks.length === 0) return [];
  return [
    operation(`${prefix}readback-${screen.id}`, zone, takes(30, 90), {
      title: "Verify what the console is about to do",
      kind: "read back",
      place: "console",
      do: ["Read it on the screen, before you press a key there."],
      hazards: [leg.kind === "fresh" ? HAZARD.erase : HAZARD.change],
      ...{ asks, verb: leg.kind === "fresh" ? "install" : "upgrade", version, sizes },
    }),
  ];
}

export const overwritten = (plan: ScreenGround): Deed => ({
  kind: "drives overwritten",
  drives: targetsOf(plan).flatMap(({ drive }) => registerKey(drive) ?? []),
  by: plan.image?.name ?? "the installation",
});

/**
 * The profile's time as own runs have corrected it, or the time that the share of the image takes on this way, whichever
 * is longer.
 */
export function screenDuration(
  plan: ScreenGround,
  screen: Screen,
  named: string,
): Pick<Operation, "duration" | "figure" | "runs"> {
  const usual = takes(screen.likely, screen.late, screen.wait ? 0.05 : 1);
  const own = named ? learnStep(usual, named, modelOf(plan), plan.times) : null;
  const plain = own?.duration ?? usual;
  const alone = { duration: plain, figure: own?.figure ?? null, runs: own?.runs ?? 0 };
  const way = wayOf(plan);
  if (screen.readsShare === 0 || !plan.image || way === "stick") return alone;
  const bytes = plan.image.sizeBytes * screen.readsShare;
  const ground = {
    facts: plan.machine?.document.facts ?? null,
    samples: plan.samples,
    site: plan.site,
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
