import type { ReadBack, Step } from "../stage";
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
  type: Step["type"];
  secret: string[];
  keys: string;
  expected: Step["expected"];
  hazards: string[];
  /** Seconds without hands; 0 for a screen that waits for them. */
  waitSeconds: number;
  after: "installer" | "first start";
}

const unique = <T extends { name: string }>(list: readonly T[]): T[] => [
  ...new Map(list.map((one) => [one.name, one])).values(),
];

const plain = ({ name, holds }: { name: string; holds: string }) => ({ name, holds });

const compareLines = ({ asks, verb, version, sizes }: ReadBack): string[] =>
  asks.map((part) =>
    part === "verb"
      ? verb === "install"
        ? "a fresh installation, not an upgrade"
        : "an upgrade, not a fresh installation"
      : part === "version"
        ? `version ${version}`
        : `${[...new Set(sizes.map(formatBytes))].join(" or ")}`,
  );

/** The screen that a step stands for; guards that went before it become what must stand there. */
const cardScreen = (step: Step, guards: readonly Step[]): CardScreen => ({
  ...{ id: step.id, title: step.title, see: step.see, never: step.never, do: step.do, type: step.type },
  ...{ secret: step.secret, keys: step.keys, expected: step.expected, hazards: step.hazards },
  compare: guards.flatMap((g) => (g.readBack ? compareLines(g.readBack) : [])),
  drives: unique(guards.flatMap((g) => g.guard?.drives.map(plain) ?? [])),
  leaveAlone: unique(guards.flatMap((g) => g.guard?.leaveAlone.map(plain) ?? [])),
  waitSeconds: step.kind === "wait" ? step.duration.likelySeconds : 0,
  after: step.zone === "H" ? "installer" : "first start",
});

/**
 * The answer card: the installer's own screens in its order, and what is typed at the first start. Work beside the screens
 * (media, restarts, reading back) stands in the steps of the run only.
 */
export function answerCard(steps: readonly Step[]): CardScreen[] {
  let guards: Step[] = [];
  return steps.flatMap((step) => {
    if (step.kind === "guard") {
      guards.push(step);
      return [];
    }
    // What a guard before other work asks for, such as the writing of a stick, is none of a screen's.
    const own = guards;
    guards = [];
    return /(^|-)(screen|first)-/.test(step.id) ? [cardScreen(step, own)] : [];
  });
}
