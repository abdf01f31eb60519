import { z } from "zod";

/** Who gets the machine, and under what. */
export const handOverSlice = z.object({
  licence: z.enum(["none needed", "licensed", "evaluation"]).default("none needed"),
  evaluationEnds: z.iso.date().nullable().default(null),
  owner: z.string().max(400).default(""),
  notes: z.string().max(10_000).default(""),
});
export type HandOverSlice = z.infer<typeof handOverSlice>;
