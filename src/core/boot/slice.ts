import { z } from "zod";

/** How the machine starts for the installation. */
export const bootSlice = z.object({
  mode: z.enum(["uefi", "legacy"]).default("uefi"),
  start: z.enum(["one-time boot", "media first in the boot order"]).default("one-time boot"),
  /** "off to install": on again before the installed system is started. */
  secureBoot: z.enum(["on", "off", "off to install"]).default("on"),
  /** Devices that the permanent order is to begin with, by their ids in the picture; empty: it stays as it is. */
  order: z.array(z.string().max(400)).max(100).default([]),
  /** What was seen and done at settings of the firmware. */
  settings: z
    .array(
      z.object({
        key: z.string().max(40),
        found: z.string().max(200).default(""),
        done: z.enum(["", "set", "left", "cannot be set"]).default(""),
      }),
    )
    .max(60)
    .default([]),
  /** What a second boot device is worth is worked out from; null where nobody has typed it. */
  worth: z
    .object({
      failuresPerYear: z.number().positive().max(1).nullable().default(null),
      dayPrice: z.number().positive().max(1e9).nullable().default(null),
      devicePrice: z.number().positive().max(1e9).nullable().default(null),
      replacedWithinDays: z.number().positive().max(365).default(7),
    })
    .prefault({}),
  /** How the module for boot cards is set up, and what its page showed of a sync. */
  cards: z
    .object({
      name: z.string().max(60).default(""),
      primary: z.string().max(60).default(""),
      removable: z.enum(["", "yes", "no"]).default(""),
      readings: z
        .array(z.object({ at: z.iso.datetime(), percent: z.number().int().min(0).max(100) }))
        .max(60)
        .default([]),
    })
    .prefault({}),
  menuKey: z.string().max(400).default(""),
});
export type BootSlice = z.infer<typeof bootSlice>;
