import { z } from "zod";

const word = z.string().max(400).default("");

/** By which port, in which segment and under which address the machine is reached. */
export const networkSlice = z.object({
  port: z.string().nullable().default(null),
  segment: z.string().nullable().default(null),
  school: z.enum(["fixed", "reserved", "dynamic"]).default("fixed"),
  address: word,
  gateway: word,
  nameServers: z.array(z.string()).default([]),
  /** For "dynamic now, fixed later": the day by which it is fixed. */
  fixedBy: z.iso.date().nullable().default(null),
});
export type NetworkSlice = z.infer<typeof networkSlice>;
