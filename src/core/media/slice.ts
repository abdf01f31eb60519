import { z } from "zod";
import { ROADS } from "../image";
import { WAYS } from "./ways";

const word = z.string().max(400).default("");

/** The image of a build, and how it gets to the machine. */
export const imageSlice = z.object({
  id: z.string().nullable().default(null),
  /** The edition of the OS profile that the steps are made from; null for the newest. */
  edition: z.number().int().positive().nullable().default(null),
  road: z.enum(ROADS).default("fresh"),
  way: z.enum(WAYS).default("virtual media"),
  stick: z
    .object({
      /** Key in the drive register; empty for a stick that is only described here. */
      key: word,
      /** It is used as it was written before; no step writes it. */
      ready: z.boolean().default(false),
      name: word,
      sizeBytes: z.number().int().nonnegative().nullable().default(null),
      written: z.enum(["as the image", "uefi", "legacy", "unknown"]).default("as the image"),
      holds: word,
    })
    .prefault({}),
});
export type ImageSlice = z.infer<typeof imageSlice>;
