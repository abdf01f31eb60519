import { z } from "zod";
import { LAYOUTS } from "../image";
import { SWAP_SCHOOLS } from "./plan/swap";
import { plannedSetSchema } from "./sets/planned";

/** A person agreed that a drive is erased: the drive, what stood on it then, and what was typed to name it. */
const consentSchema = z.object({
  drive: z.string(),
  /** The characters that were typed; kept as they were. */
  typed: z.string(),
  /** What was known to stand on the drive; when that changes, the consent ends. Null in sheets from before it was kept. */
  holds: z.string().nullable().default(null),
  by: z.string(),
  at: z.string(),
});
export type Consent = z.infer<typeof consentSchema>;

/** Sheets from before a target could be several drives hold one consent, or null. */
const consentsOf = (value: unknown): unknown =>
  (value === null ? [] : Array.isArray(value) ? value : [value]).map((one: unknown) =>
    typeof one === "object" && one !== null && "tail" in one ? { ...one, typed: one.tail } : one,
  );

/** The drives that the system is installed on, what is made of others, and what becomes of the rest. */
export const storageSlice = z.object({
  /** The drive that the system is installed on; of a set, its first one. */
  target: z.string().nullable().default(null),
  /** The other drives of a set, and spares that stand by for it. */
  partners: z
    .array(z.object({ drive: z.string(), role: z.enum(["member", "spare"]).default("member") }))
    .default([]),
  /** How the drives of the target stand together. */
  layout: z.enum(LAYOUTS).default("single drive"),
  swap: z.enum(SWAP_SCHOOLS).default("as the installer does"),
  leaveAlone: z.array(z.string()).default([]),
  free: z.array(z.string()).default([]),
  /** Pools, arrays and virtual drives that are made of other drives. */
  sets: z.array(plannedSetSchema).max(40).default([]),
  erase: z.preprocess(consentsOf, z.array(consentSchema)).default([]),
});
export type StorageSlice = z.infer<typeof storageSlice>;
