import { REPORTS } from "../work";
import { secondsBetween } from "../units";
import type { Arming } from "./arming";
import type { ArmingState, Stage } from "./state";

type Told = (typeof REPORTS)[number];

/** By which stage of the board each of them is heard. */
const BY: Readonly<Record<Exclude<Told, "armed">, Stage>> = {
  script: "script",
  read: "installing",
  installed: "first boot",
  done: "done",
};

/** What was heard of a step. */
export interface Heard {
  at: string;
  /** Seconds since what comes before it was heard; null where either was not heard by itself. */
  took: number | null;
  /** Why the run is to stop, where the installation has ended without the step. */
  stops: string | null;
}

/**
 * What the boot service has heard that ends a step; null while it has heard nothing. What comes later was not without what comes
 * before it.
 */
export function heardAt(
  arming: Arming,
  { status, reached, why, overAt }: ArmingState,
  told: Told,
): Heard | null {
  const over = status === "failed" || status === "cancelled";
  // One that ended before its machine was given anything is as if it had not been.
  const isNothing = (over || status === "expired") && !reached.script;
  if (told === "armed") return isNothing ? null : { at: arming.at, took: null, stops: null };
  const place = REPORTS.indexOf(told);
  const own = (t: Told | undefined): string | undefined =>
    t === undefined || t === "armed" ? undefined : reached[BY[t]];
  const at = REPORTS.slice(place)
    .flatMap((t) => own(t) ?? [])
    .sort()[0];
  if (at) {
    const from = own(REPORTS[place - 1]);
    return { at, took: from && at === own(told) ? secondsBetween(from, at) : null, stops: null };
  }
  if (!over || overAt === null) return null;
  const { name } = arming.machine;
  return {
    ...{ at: overAt, took: null },
    stops:
      status === "failed"
        ? `${name} reported a failed installation: ${why || "no reason reported"}.`
        : `The installation of ${name} was cancelled by ${why}.`,
  };
}
