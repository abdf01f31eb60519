"use server";

import { revalidatePath } from "next/cache";
import type { Site } from "@/core/site";
import { createSite, saveSite } from "@/server/sites";

export async function addSite(name: string) {
  return createSite(name);
}

export async function keepSite(id: string, version: number, site: Site) {
  const answer = await saveSite(id, version, site);
  if (answer.ok) revalidatePath(`/sites/${id}`);
  return answer;
}
