import { z } from "zod";

/** What people write about a management controller; `present` is null while nobody has said whether there is one. */
export const controllerPartSchema = z.object({
  present: z.boolean().nullable(),
  address: z.string().trim().max(60),
  virtualMedia: z.enum(["licensed", "not licensed", "unknown"]),
  /** Bytes per second. */
  mediaBytesPerSecond: z.number().positive().nullable(),
  /** In words; never a secret. */
  loginKept: z.string().trim().max(200),
});
export type ControllerPart = z.infer<typeof controllerPartSchema>;
