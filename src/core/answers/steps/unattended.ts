import { learnStep, takes, type Duration } from "../../estimate";
import type { LegView } from "../../image";
import { modelOf } from "../../machine";
import { mediaWords, movesOf, wayOf } from "../../media";
import { operation, statement, type Effect, type Operation } from "../../work";
import { screenEffects } from "./effects";
import { overwritten, screenDuration, type ScreenGround } from "./screens";

type View = LegView<ScreenGround & { sheet: { answers: { hostName: string } } }>;

/** So long an installer takes to read its kernel and its answers, and to begin. */
const READS = takes(180, 1800, 0.05);

const sum = (parts: readonly Duration[]): Duration => ({
  likelySeconds: parts.reduce((all, d) => all + d.likelySeconds, 0),
  lateSeconds: parts.reduce((all, d) => all + d.lateSeconds, 0),
  handsShare: 0,
});

/** What its screens would do to the machine, done by the answer file; nobody chooses a drive by hand. */
const effectsOf = ({ plan, leg }: View): Effect[] =>
  leg.screens
    .flatMap((screen) => screenEffects(plan, leg, screen, "H"))
    .filter((effect) => effect.do !== "choose drives");

/**
 * The steps of an installation that a machine carries out by itself from an answer file, as the boot service hears of them: it
 * waits where a person would stand before screens, and its time is that of the screens which only wait.
 */
export function unattendedSteps(view: View): Operation[] {
  const { plan, leg, prefix } = view;
  const waits = leg.screens.filter((s) => s.wait).map((s) => ({ screen: s, ...screenDuration(plan, s, "") }));
  const only = waits.length === 1 ? waits[0] : undefined;
  const named = `${leg.profile.profile} ${leg.profile.version} unattended`;
  const usual = sum(waits.map((w) => w.duration));
  const learned = learnStep(usual, named, modelOf(plan), plan.times);
  const name = plan.sheet.answers.hostName || "The machine";
  const { likely, late } = leg.profile.restart;
  return [
    operation(`${prefix}files`, "H", READS, {
      title: `Wait: ${name} loads its installer and its answers`,
      kind: "wait",
      place: "console",
      sees: [statement("The kernel and its files load, then the installer asks nothing")],
      never: [statement("A question that waits for input: the answer file is incomplete")],
      lent: [{ executor: "boot service", report: "read" }],
    }),
    operation(`${prefix}installs`, "H", learned?.duration ?? usual, {
      title: `Wait: ${name} is installed unattended`,
      kind: "wait",
      place: "console",
      never: [statement("Screens of the installer with questions")],
      // The working of one wait is not that of a sum of several.
      figure: learned?.figure ?? only?.figure ?? null,
      measures: [
        { of: "wait", what: named },
        ...(only?.figure && !learned ? movesOf(plan, only.screen.readsShare) : []),
      ],
      runs: learned?.runs ?? 0,
      lent: [{ executor: "boot service", report: "installed" }],
      effects: effectsOf(view),
      deeds: leg.screens.some((s) => s.destroys) ? [overwritten(plan)] : [],
    }),
    operation(`${prefix}first-start`, "H", takes(likely, late, 0.05), {
      title: `${name} boots from its own disk`,
      kind: "wait",
      place: "console",
      sees: [
        statement("The boot script reports that this machine is already installed"),
        { of: "system", name },
      ],
      never: [{ of: "boot", ends: "installer" }],
      lent: [{ executor: "boot service", report: "done" }],
      effects: [
        { do: "restart" },
        { do: "remove medium", medium: wayOf(plan), name: mediaWords(plan) },
        { do: "put boot order back" },
        { do: "install system", profile: leg.profile.profile, version: leg.version },
      ],
    }),
  ];
}
