"use server";

import { z } from "zod";
import { adoptStranger } from "@/server/netboot/adopt";
import { yes } from "@/server/answer";
import { armBatch } from "@/server/netboot/batch";
import { armMachine, disarm } from "@/server/netboot/arm";
import { action, idSchema } from "../../checked";
import { renewed } from "../../renewed";

const armOne = action(
  [idSchema, z.object({ typed: z.string().max(120), minutes: z.number().int() })],
  armMachine,
);
const armAll = action(
  [z.array(z.object({ build: idSchema, typed: z.string().max(120) })).max(200), z.number().int()],
  async (desk, asked, minutes) => yes(await armBatch(desk, asked, minutes)),
);
const adoptOne = action([z.string().max(40), idSchema, z.string().max(80)], adoptStranger);
const callOff = action([idSchema], disarm);

/** Arms the machine of a sheet, by the end of its serial as it was typed. */
export async function arm(build: string, asked: { typed: string; minutes: number }) {
  return renewed("/builds/netboot", armOne(build, asked));
}

/** Arms the machines whose serials were typed, each for itself. */
export async function armSome(asked: { build: string; typed: string }[], minutes: number) {
  return renewed("/builds/netboot", armAll(asked, minutes));
}

/** Calls an arming off. */
export async function cancel(id: string) {
  return renewed("/builds/netboot", callOff(id));
}

/** Makes a machine of one that asked. */
export async function adopt(mac: string, site: string, name: string) {
  return renewed("/builds/netboot", adoptOne(mac, site, name));
}
