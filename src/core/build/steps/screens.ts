import { discEstimate, mediaEstimate, networkEstimate } from "../../boot";
import { takes } from "../../estimate";
import type { Screen } from "../../image";
import { contentWords, driveName, serialTail } from "../../machine";
import { dispositionOf } from "../../storage";
import { fillTemplate } from "../../text";
import { drivesOf, targetOf, type BuildContext } from "../context";
import type { Guard, Step } from "../step";
import { valuesOf } from "../values";
import { movesOf, wayOf, type LegView } from "./leg";
import { HAZARD, step } from "./make";

/** The steps of one screen; a guard goes before one that erases. */
export function screenSteps(
  { context, prefix, leg, last }: LegView,
  screen: Screen,
  zone: "H" | "I",
): Step[] {
  const dynamic = context.sheet.network.school !== "fixed";
  if (screen.when === "fixed address" && dynamic) return [];
  if (screen.when === "dynamic address" && !dynamic) return [];
  const values = valuesOf(context);
  const fill = (text: string): string => fillTemplate(text, values);
  const { duration, figure } = screenDuration(context, screen);
  const login = leg.profile.defaultLogins.find((l) => l.changedOn === screen.id);
  const made = step(`${prefix}${zone === "H" ? "screen" : "first"}-${screen.id}`, zone, duration, {
    title: fill(screen.title) + (last ? "" : ` (${leg.profile.name} ${leg.version})`),
    kind: screen.wait ? "wait" : screen.type.length > 0 || screen.secret.length > 0 ? "type" : "act",
    place: "console",
    see: screen.see.map(fill),
    never: screen.never.map(fill),
    do: [
      ...screen.do.map(fill),
      ...(login ? [`This changes the default log-in ${login.name}, which opens ${login.opens}.`] : []),
    ],
    type: screen.type.map((t) => ({ label: t.label, value: fill(t.value) })),
    secret: screen.secret.map(fill),
    keys: screen.keys,
    expected: screen.expected,
    hazards: screen.destroys ? [HAZARD.erase] : [],
    figure,
    // Where the screen itself takes longer than the transfer, its time says nothing about the rate.
    moves: figure ? movesOf(context, screen.readsShare) : null,
    after: screen.destroys
      ? { target: "at risk" }
      : screen.wait && zone === "H" && screen.readsShare < 1
        ? { target: "installed" }
        : {},
  });
  const guard = screen.destroys ? guardFor(context) : null;
  if (!guard) return [made];
  return [
    step(`${prefix}guard-${screen.id}`, zone, takes(45, 150), {
      title: "Name the drive before anything is written",
      kind: "guard",
      place: "console",
      see: [guard.target],
      do: [
        "Open the installer's details of the drive that you are about to choose. Read the serial from the screen, not from here.",
      ],
      hazards: [HAZARD.erase],
      guard,
    }),
    made,
  ];
}

/** The profile's time, or the time that the share of the image takes on this way, whichever is longer. */
function screenDuration(context: BuildContext, screen: Screen): Pick<Step, "duration" | "figure"> {
  const plain = takes(screen.likely, screen.late, screen.wait ? 0.05 : 1);
  const way = wayOf(context);
  if (screen.readsShare === 0 || !context.image || way === "stick") return { duration: plain, figure: null };
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
  if (duration.likelySeconds <= plain.likelySeconds) return { duration: plain, figure: null };
  return {
    duration: {
      ...duration,
      lateSeconds: Math.max(duration.lateSeconds, plain.lateSeconds),
      handsShare: plain.handsShare,
    },
    figure,
  };
}

function guardFor(context: BuildContext): Guard | null {
  const target = targetOf(context);
  if (!target) return null;
  const tail = serialTail(target);
  return {
    expect: tail || String(target.sizeBytes),
    asks: tail
      ? `the last ${tail.length} characters of the serial that the console shows`
      : "the size in bytes that the console shows (the drive reports no serial)",
    target: driveName(target),
    leaveAlone: drivesOf(context)
      .filter((d) => dispositionOf(d, context.sheet.storage) !== "target")
      .map((d) => ({ tail: serialTail(d), name: driveName(d), holds: contentWords(d) })),
  };
}
