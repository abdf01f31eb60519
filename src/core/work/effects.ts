import { z } from "zod";
import { WAYS } from "../estimate";
import { MODES } from "./mode";

const drives = z.array(z.string());
const medium = { medium: z.enum(WAYS), name: z.string() };

/**
 * What a step does to the machine, as data: the sentences of the step are made from it, the strip of a run is folded
 * from it, and whatever carries steps out by itself reads it. Drives are ids of facts, ports are MAC addresses.
 */
export const effectSchema = z.discriminatedUnion("do", [
  z.object({ do: z.literal("switch power"), to: z.enum(["on", "off"]) }),
  z.object({
    do: z.literal("set firmware"),
    mode: z.enum(MODES),
    /** Null where the mode knows none. */
    secureBoot: z.enum(["on", "off"]).nullable(),
    virtualisation: z.boolean(),
    /** What is set for the installation only, such as "secure boot off"; to be put back before it is handed over. */
    forInstall: z.array(z.string()).default([]),
    /** Names of what the permanent boot order is to begin with; empty: it stays as it is. */
    order: z.array(z.string()).default([]),
  }),
  z.object({ do: z.literal("insert medium"), ...medium, holds: z.string(), mac: z.string().nullable() }),
  z.object({ do: z.literal("remove medium"), ...medium }),
  z.object({
    do: z.literal("start next from"),
    ...medium,
    mode: z.enum(MODES),
    /** For one start only; otherwise it stays first in the order until that is put back. */
    once: z.boolean(),
  }),
  z.object({ do: z.literal("put boot order back") }),
  z.object({ do: z.literal("put settings back"), to: z.array(z.string()) }),
  z.object({ do: z.literal("choose drives"), drives }),
  z.object({
    do: z.literal("write drives"),
    drives,
    erases: z.boolean(),
    /** Those of the target, or others that the plan frees. */
    of: z.enum(["target", "free"]),
  }),
  z.object({ do: z.literal("install system"), profile: z.string(), version: z.string() }),
  z.object({ do: z.literal("set name"), name: z.string() }),
  z.object({
    do: z.literal("set address"),
    mac: z.string().nullable(),
    school: z.string(),
    address: z.string(),
  }),
  /** A log-in that exists before anybody chose one gets a password of its own. */
  z.object({ do: z.literal("change log-in"), name: z.string(), opens: z.string() }),
  z.object({ do: z.literal("restart") }),
]);
export type Effect = z.infer<typeof effectSchema>;
export type EffectOf<Do extends Effect["do"]> = Extract<Effect, { do: Do }>;

/** What is true of the machine once a step is done; absent parts stay as they were. */
export const stripSchema = z.object({
  power: z.enum(["on", "off"]).optional(),
  media: z.string().optional(),
  nextBoot: z.string().optional(),
  /** What of the firmware is set for the installation only. */
  firmware: z.string().optional(),
  target: z.enum(["untouched", "at risk", "erased", "installed"]).optional(),
});
export type Strip = z.infer<typeof stripSchema>;

/** Of a machine on which nothing is left that was set for the installation only. */
export const NOTHING_TO_PUT_BACK = "nothing to revert";

/** What one effect leaves behind, as far as the strip tells it. */
function leaves(effect: Effect): Strip {
  switch (effect.do) {
    case "switch power":
      return { power: effect.to };
    case "insert medium":
      return { media: effect.medium === "virtual media" ? `${effect.holds} mapped` : effect.name };
    case "remove medium":
      return { media: "none" };
    case "start next from":
      return { power: "on", nextBoot: `${effect.once ? "once" : "always"}: ${effect.name}` };
    case "set firmware":
      return effect.forInstall.length > 0 ? { firmware: effect.forInstall.join(", ") } : {};
    case "put settings back":
      return { firmware: NOTHING_TO_PUT_BACK };
    case "put boot order back":
      return { nextBoot: "as ordered" };
    case "choose drives":
      return { target: "at risk" };
    case "write drives":
      return effect.of === "target" ? { target: "at risk" } : {};
    case "install system":
      return { target: "installed" };
    case "restart":
      return { power: "on" };
    default:
      return {};
  }
}

/** The strip after some effects, in their order. */
export const stripAfter = (effects: readonly Effect[]): Strip => Object.assign({}, ...effects.map(leaves));
