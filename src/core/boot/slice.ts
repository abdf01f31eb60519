import { z } from "zod";

/** How the machine starts for the installation. */
export const bootSlice = z.object({
  mode: z.enum(["uefi", "legacy"]).default("uefi"),
  start: z.enum(["one-time boot", "media first in the boot order"]).default("one-time boot"),
  secureBoot: z.enum(["on", "off"]).default("on"),
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
  menuKey: z.string().max(400).default(""),
});
export type BootSlice = z.infer<typeof bootSlice>;
