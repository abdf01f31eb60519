"use server";

import { z } from "zod";
import { armMachine, disarm } from "@/server/netboot/arm";
import { action, idSchema } from "../../checked";
import { renewed } from "../../renewed";

const armOne = action(
  [idSchema, z.object({ typed: z.string().max(120), minutes: z.number().int() })],
  armMachine,
);
const callOff = action([idSchema], disarm);

/** Arms the machine of a sheet, by the end of its serial as it was typed. */
export async function arm(build: string, asked: { typed: string; minutes: number }) {
  return renewed("/builds/netboot", armOne(build, asked));
}

/** Calls an arming off. */
export async function cancel(id: string) {
  return renewed("/builds/netboot", callOff(id));
}
