"use server";

import { z } from "zod";
import { createSite } from "@/server/sites";
import { previewTaking, takeOver } from "@/server/site-files";
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

const textSchema = z.string().max(8_000_000);
const nameSchema = z.string().max(200);

export const previewFile = action([idSchema, textSchema, nameSchema], previewTaking);

export const takeFile = action(
  [idSchema, versionSchema, textSchema, nameSchema, z.array(z.number().int().nonnegative()).max(100_000)],
  (desk, id, version, text, machine, rows) =>
    renewed(`/sites/${id}`, takeOver(desk, id, version, text, machine, rows)),
);
