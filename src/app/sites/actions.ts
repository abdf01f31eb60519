"use server";

import { revalidatePath } from "next/cache";
import { z } from "zod";
import type { siteSchema } from "@/core/site";
import { createSite, saveSite } from "@/server/sites";
import { action, idSchema, versionSchema } from "../checked";

export const addSite = action([z.string().max(200)], createSite);

// The site itself is read by the use case, which names every field that does not fit.
export const keepSite = action(
  [idSchema, versionSchema, z.custom<z.input<typeof siteSchema>>((v) => typeof v === "object" && v !== null)],
  async (desk, id, version, site) => {
    const answer = await saveSite(desk, id, version, site);
    if (answer.ok) revalidatePath(`/sites/${id}`);
    return answer;
  },
);
