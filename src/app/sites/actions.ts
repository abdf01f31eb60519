"use server";

import { z } from "zod";
import { createSite } from "@/server/sites";
import { saveWritten, SITE, takeBackWritten } from "@/server/written";
import { action, editsSchema, idSchema, versionSchema } from "../checked";
import { renewed } from "../renewed";

export const addSite = action([z.string().max(200)], createSite);

// The values themselves are read by the use case, which names every field that does not fit.
export const keepSite = action([idSchema, versionSchema, editsSchema], (desk, id, version, edits) =>
  renewed(`/sites/${id}`, saveWritten(desk, SITE, id, version, edits)),
);

export const takeSiteBack = action([idSchema, versionSchema], (desk, id, version) =>
  renewed(`/sites/${id}`, takeBackWritten(desk, SITE, id, version)),
);
