import { isGuard, sightWords, type Guard, type Operation, type OperationOf } from "../work";
import { formatBytes } from "../units";

/** One screen of the installer as a person reads it off while typing into a console. */
export interface CardScreen {
  id: string;
  title: string;
  /** The drives that may be named here, by their looks: the serial that is asked for stands on the machine itself, never on the card. */
  drives: { name: string; holds: string }[];
  /** What must stand on the page before its key is pressed, from the plan; a run asks for it and shows none of it. */
  compare: string[];
  leaveAlone: { name: string; holds: string }[];
  see: string[];
  never: string[];
  do: string[];
  lines: Operation["lines"];
  secrets: string[];
  keys: string;
  normal: { looks: string; means: string }[];
  hazards: string[];
  /** Seconds without hands; 0 for a screen that waits for them. */
  waitSeconds: number;
  after: "installer" | "first start";
}

const unique = <T extends { name: string }>(list: readonly T[]): T[] => [
  ...new Map(list.map((one) => [one.name, one])).values(),
];

const plain = ({ name, holds }: { name: string; holds: string }) => ({ name, holds });

const compareLines = ({ asks, verb, version, sizes }: OperationOf<"read back">): string[] =>
  asks.map((part) =>
    part === "verb"
      ? verb === "install"
        ? "a fresh installation, not an upgrade"
        : "an upgrade, not a fresh installation"
      : part === "version"
        ? `version ${version}`
        : `${[...new Set(sizes.map(formatBytes))].join(" or ")}`,
  );

/** The screen that a step is for; guards that went before it become what must stand there. */
function cardScreen(step: Operation, at: CardScreen["after"], guards: readonly Guard[]): CardScreen {
  const namings = guards.filter((g) => g.kind === "name drive");
  const { id, title, lines, secrets, keys, hazards } = step;
  return {
    ...{ id, title, do: step.do, lines, secrets, keys, hazards, after: at },
    see: step.sees.map(sightWords),
    never: step.never.map(sightWords),
    normal: step.normal.map(({ sight, means }) => ({ looks: sightWords(sight), means })),
    compare: guards.flatMap((g) => (g.kind === "read back" ? compareLines(g) : [])),
    drives: unique(namings.flatMap((g) => g.drives.map(plain))),
    leaveAlone: unique(namings.flatMap((g) => g.leaveAlone.map(plain))),
    waitSeconds: step.kind === "wait" ? step.duration.likelySeconds : 0,
  };
}

/**
 * The answer card: the installer's own screens in its order, and what is typed at the first start. Work beside the screens
 * (media, restarts, reading back) stands in the steps of the run only.
 */
export function answerCard(steps: readonly Operation[]): CardScreen[] {
  let guards: Guard[] = [];
  return steps.flatMap((step) => {
    if (isGuard(step)) {
      guards.push(step);
      return [];
    }
    // What a guard before other work asks for, such as the writing of a stick, is none of a screen's.
    const own = guards;
    guards = [];
    return step.origin.of === "screen" ? [cardScreen(step, step.origin.at, own)] : [];
  });
}
