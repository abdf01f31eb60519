import { z } from "zod";

/** The machine of a build. */
export const machineSlice = z.object({ id: z.string().nullable().default(null) });
export type MachineSlice = z.infer<typeof machineSlice>;
