"use server";

import { z } from "zod";
import { adoptStranger } from "@/server/netboot/adopt";
import { yes } from "@/server/answer";
import { armBatch } from "@/server/netboot/batch";
import { armMachine, disarm, type Asked } from "@/server/netboot/arm";
import { action, idSchema } from "../../checked";
import { renewed } from "../../renewed";

const howSchema = z.object({ minutes: z.number().int(), asksCode: z.boolean() });
const armOne = action([idSchema, howSchema.extend({ typed: z.string().max(120) })], armMachine);
const armAll = action(
  [z.array(z.object({ build: idSchema, typed: z.string().max(120) })).max(200), howSchema],
  async (desk, asked, how) => yes(await armBatch(desk, asked, how)),
);
const adoptOne = action([z.string().max(40), idSchema, z.string().max(80)], adoptStranger);
const callOff = action([idSchema], disarm);

/** Arms the machine of a sheet, by the end of its serial as it was typed. */
export async function arm(build: string, asked: Asked) {
  return renewed("/builds/netboot", armOne(build, asked));
}

/** Arms the machines whose serials were typed, each for itself. */
export async function armSome(asked: { build: string; typed: string }[], how: Omit<Asked, "typed">) {
  return renewed("/builds/netboot", armAll(asked, how));
}

/** Calls an arming off. */
export async function cancel(id: string) {
  return renewed("/builds/netboot", callOff(id));
}

/** Makes a machine of one that asked. */
export async function adopt(mac: string, site: string, name: string) {
  return renewed("/builds/netboot", adoptOne(mac, site, name));
}
