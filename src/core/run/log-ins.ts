import type { Procedure } from "../procedure";
import { formatDuration, secondsBetween } from "../units";

import type { RunState } from "./state";

/** A log-in that exists before anybody chose one, as far as a run has come with it. */
export interface DefaultLogIn {
  name: string;
  opens: string;
  /** Since when the system that it opens runs; null before that, and where it was changed earlier. */
  since: string | null;
  /** When it was changed; null where it was not, or not yet. */
  changed: string | null;
  /** The step that changes it was passed over, or showed something else. */
  missed: boolean;
}

/**
 * The default log-ins of the systems that a run installs. One stands open from the end of the installation, when the
 * network may already be up, to the step that changes it.
 */
export function logInsOf(plan: Procedure, state: RunState): DefaultLogIn[] {
  return plan.steps.flatMap((step, i) =>
    step.effects.flatMap((effect): DefaultLogIn[] => {
      if (effect.do !== "change log-in") return [];
      const own = state.steps[i];
      const installed = plan.steps
        .slice(0, i)
        .findLastIndex((s) => s.effects.some((e) => e.do === "install system"));
      const changed = own?.state === "done" ? own.endedAt : null;
      return [
        {
          ...{ name: effect.name, opens: effect.opens, changed },
          since: installed < 0 ? null : (state.steps[installed]?.endedAt ?? null),
          missed: own?.state === "skipped" || own?.state === "differs",
        },
      ];
    }),
  );
}

/** How it ended, in words; "" while it may still be changed. */
export function logInWords({ since, changed, missed }: DefaultLogIn): string {
  if (changed === null) return missed ? "not changed by the run" : "";
  return since === null
    ? "changed before the system ran"
    : `changed; the default login was active for ${formatDuration(secondsBetween(since, changed))}`;
}
