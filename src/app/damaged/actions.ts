"use server";

import { revalidatePath } from "next/cache";
import { z } from "zod";
import { DAMAGED_KINDS, repairDamaged, setDamagedAside } from "@/server/damaged";
import { action } from "../checked";

const kind = z.enum(DAMAGED_KINDS);
const id = z.string().min(1).max(400);

export const repair = action([kind, id, z.string().max(8_000_000)], async (desk, of, row, text) => {
  const answer = await repairDamaged(desk, of, row, text);
  revalidatePath("/damaged");
  return answer;
});

export const setAside = action([kind, id], async (desk, of, row) => {
  const answer = await setDamagedAside(desk, of, row);
  revalidatePath("/damaged");
  return answer;
});
