import type { LoggedEvent, RunPlan, RunState, SettledLine } from "@/core/run";

/** A run as the server gives it, and as it is shown. */
export interface RunView {
  id: string;
  buildId: string;
  plan: RunPlan;
  log: LoggedEvent[];
  state: RunState;
  hands: { at: string; what: string; late: boolean } | null;
  acceptance: SettledLine[];
  now: string;
}
