import type { Moment } from "./picture/view";
import type { BootSlice } from "./slice";

type Planned = Pick<BootSlice, "secureBoot">;

/** Whether the plan leaves secure boot on once everything is done. */
export const isSecureAfter = ({ secureBoot }: Planned): boolean => secureBoot !== "off";

/**
 * Whether it is on at a moment of a plan of so many legs; off for the installation only, it is on again before the last
 * restart, which is the first one too where there is one leg.
 */
export const isSecureAt = ({ secureBoot }: Planned, moment: Moment, legs: number): boolean =>
  moment === "power loss" || (moment === "first restart" && legs <= 1)
    ? secureBoot !== "off"
    : secureBoot === "on";

export const switchWords = (on: boolean): "on" | "off" => (on ? "on" : "off");
