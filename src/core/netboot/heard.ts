import { TOLD } from "../stage";
import type { Arming } from "./arming";
import type { ArmingState, Stage } from "./state";

type Told = (typeof TOLD)[number];

/** By which stage of the board each of them is heard. */
const BY: Readonly<Record<Exclude<Told, "armed">, Stage>> = {
  script: "script",
  read: "installing",
  installed: "first boot",
  done: "done",
};

/**
 * When the boot service has heard what ends a step, with why the run is to stop where the installation has ended without it; null
 * while it has not. What comes later was not without what comes before it.
 */
export function heardAt(
  arming: Arming,
  { status, reached, why, overAt }: ArmingState,
  told: Told,
): { at: string; stops: string | null } | null {
  const over = status === "failed" || status === "cancelled";
  // One that ended before its machine was given anything is as if it had not been.
  const isNothing = (over || status === "expired") && !reached.script;
  if (told === "armed") return isNothing ? null : { at: arming.at, stops: null };
  const later = TOLD.slice(TOLD.indexOf(told)).flatMap((t) => (t === "armed" ? [] : (reached[BY[t]] ?? [])));
  const at = later.sort()[0];
  if (at) return { at, stops: null };
  if (!over || overAt === null) return null;
  const name = arming.machine.name;
  return {
    at: overAt,
    stops:
      status === "failed"
        ? `${name} told that its installation failed: ${why || "it did not say why"}.`
        : `The installation of ${name} was called off by ${why}.`,
  };
}
