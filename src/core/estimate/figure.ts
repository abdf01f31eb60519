import { z } from "zod";

const inputSchema = z.object({
  name: z.string(),
  value: z.string(),
  source: z.enum(["imported", "typed", "default", "computed", "measured"]),
});

/** A number with its working: the formula with names, each input with its value and where it came from. */
export const figureSchema = z.object({
  value: z.number(),
  unit: z.string(),
  /** For a sum of money, the sign or code of its currency: the unit is then what follows it, as "per year". */
  currency: z.string().optional(),
  formula: z.string(),
  inputs: z.array(inputSchema),
});

export type Figure = z.infer<typeof figureSchema>;
export type FigureInput = z.infer<typeof inputSchema>;
