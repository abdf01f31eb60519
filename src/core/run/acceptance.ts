import type { Procedure } from "../procedure";
import type { AcceptanceLine } from "../verify";
import { NOTHING_TO_PUT_BACK, restarts, startsFromOff } from "../work";

import { logInsOf, logInWords } from "./log-ins";
import type { RunState, Settled } from "./state";

/** A line of the acceptance with what a person decided about it, if that still holds. */
export interface SettledLine extends AcceptanceLine {
  settled: Settled | null;
}

/**
 * Every line that hand-over asks about: what was read from the installed system against the plan, and what the run itself
 * knows (media, boot order, the start from power off). A decision holds for what was found when it was made.
 */
export function acceptanceOf(plan: Procedure, state: RunState): SettledLine[] {
  const read = new Map(state.acceptance?.lines.map((l) => [l.id, l]));
  const asked = plan.expectations.map(
    ({ id, zone, what, planned }): AcceptanceLine =>
      read.get(id) ?? { id, zone, what, planned, found: "", verdict: "not seen" },
  );
  return [...asked, ...ofTheRun(plan, state)].map((line) => {
    const settled = state.settled[line.id] ?? null;
    return { ...line, settled: settled?.found === line.found ? settled : null };
  });
}

/** When the installed system can have been read at the earliest: the last start into it, else the run's own. */
export function installedAt(plan: Procedure, state: RunState): string | null {
  const started = plan.steps.findLastIndex((s, i) => restarts(s) && state.steps[i]?.endedAt != null);
  return (started >= 0 ? state.steps[started]?.endedAt : null) ?? state.startedAt;
}

/** Neither as planned nor decided by a person. */
export const isOpen = (line: SettledLine): boolean => line.verdict !== "as planned" && line.settled === null;

/** What was never read from the machine, since only the run knows it. */
function ofTheRun(plan: Procedure, state: RunState): AcceptanceLine[] {
  const { media, nextBoot, firmware } = state.strip;
  const putsBack = plan.steps.some((s) => s.effects.some((e) => e.do === "put settings back"));
  return [
    line("run-media", "Media in the machine", "none", media, media === "none"),
    line("run-next-boot", "Next boot", "as ordered", nextBoot, nextBoot === "as ordered"),
    ...(putsBack
      ? [
          line(
            "run-firmware",
            "Temporary settings",
            NOTHING_TO_PUT_BACK,
            firmware,
            firmware === NOTHING_TO_PUT_BACK,
          ),
        ]
      : []),
    ...logInsOf(plan, state).map((logIn, i) =>
      line(
        `run-log-in-${i + 1}`,
        `Default login ${logIn.name}`,
        "changed",
        logInWords(logIn),
        logIn.changed === null && !logIn.missed ? null : logIn.changed !== null,
      ),
    ),
    ...coldStart(plan, state),
  ];
}

const line = (
  id: string,
  what: string,
  planned: string,
  found: string,
  agrees: boolean | null,
): AcceptanceLine => ({
  id,
  zone: "J",
  what,
  planned,
  found,
  verdict: agrees === null ? "not seen" : agrees ? "as planned" : "differs",
});

function coldStart(plan: Procedure, state: RunState): AcceptanceLine[] {
  const at = plan.steps.findIndex(startsFromOff);
  const [step, own] = [plan.steps[at], state.steps[at]];
  if (!step || !own) return [];
  const said = state.deviations.findLast((d) => d.step === step.id)?.seen ?? own.state;
  const done = own.state === "done";
  const open = own.state === "waiting" || own.state === "current";
  return [
    line(
      "run-cold-start",
      "Boot from power off",
      "booted by itself",
      done ? "booted by itself" : open ? "" : said,
      done ? true : open ? null : false,
    ),
  ];
}
