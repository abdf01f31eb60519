/** A run as far as it says how its build stands. */
interface RunEnd {
  id: string;
  endedAt: string | null;
}

export type Stand = "in preparation" | "issued" | "running" | "handed over";

/**
 * How far a build is. An issued one is not called ready: a revision may be issued for discussion, with stops in it.
 */
export function standOf(build: { revision: string | null }, run: RunEnd | null): Stand {
  if (run) return run.endedAt ? "handed over" : "running";
  return build.revision ? "issued" : "in preparation";
}

/** Where a build is gone on with: at its run while that is open, else at its sheet. */
export const wayTo = (buildId: string, run: RunEnd | null): string =>
  run && !run.endedAt ? `/runs/${run.id}` : `/builds/${buildId}`;
