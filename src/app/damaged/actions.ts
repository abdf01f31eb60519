"use server";

import { revalidatePath } from "next/cache";
import { z } from "zod";
import { DAMAGED_KINDS, repairDamaged, setDamagedAside } from "@/server/damaged";
import { checked } from "../checked";
import { currentHand } from "../hand";

const kind = z.enum(DAMAGED_KINDS);
const id = z.string().min(1).max(400);

export const repair = checked([kind, id, z.string().max(8_000_000)], async (of, row, text) => {
  const answer = await repairDamaged(of, row, text);
  revalidatePath("/damaged");
  return answer;
});

export const setAside = checked([kind, id], async (of, row) => {
  const answer = await setDamagedAside(of, row, await currentHand());
  revalidatePath("/damaged");
  return answer;
});
