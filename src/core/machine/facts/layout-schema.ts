import { z } from "zod";

/** A block of bays of one size on one face of the chassis, numbered in the maker's way. */
export const bayGroupSchema = z.object({
  title: z.string().trim().min(1).max(40),
  face: z.enum(["front", "rear", "inside"]),
  size: z.enum(["small", "large", "card"]),
  columns: z.number().int().min(1).max(30),
  rows: z.number().int().min(1).max(12),
  /** Number of the first bay; makers count from 0 or from 1. */
  first: z.number().int().min(0).max(999).default(0),
  /** Whether numbers run along rows or down columns. */
  order: z.enum(["rows", "columns"]).default("rows"),
  /** Written before the number ("rear 0"); without a number when the block is a single bay named by it. */
  prefix: z.string().max(30).default(""),
});

export type BayGroup = z.infer<typeof bayGroupSchema>;
