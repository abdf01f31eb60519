import type { Procedure } from "@/core/procedure";
import type { LoggedEvent, nextHands, RunState, SettledLine } from "@/core/run";

/** A run as the server gives it, and as it is shown. */
export interface RunView {
  id: string;
  buildId: string;
  plan: Procedure;
  log: LoggedEvent[];
  state: RunState;
  hands: ReturnType<typeof nextHands>;
  /** Every line that hand-over asks about, with what persons decided. */
  acceptance: SettledLine[];
  now: string;
}
