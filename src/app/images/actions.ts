"use server";

import { revalidatePath } from "next/cache";
import { z } from "zod";
import { checksumProblem, checksumSchema, type Checksum } from "@/core/image";
import { computeFromFolder, shelveFromFolder, stopFolderJob } from "@/server/image-folder";
import { addFile, createImage, saveComputed, saveInside, takeFromList } from "@/server/images";
import { makeMine, previewProfile } from "@/server/own-profile";
import { importProfile, saveProfile } from "@/server/profiles";
import { no } from "@/server/answer";
import { IMAGE, saveWritten, takeBackWritten } from "@/server/written";
import { action, editsSchema, idSchema, versionSchema } from "../checked";
import { renewed } from "../renewed";

const nameSchema = z.string().max(400);
const algorithmSchema = checksumSchema.shape.algorithm;
/** Checksum lists of whole mirrors have some megabytes. */
const textSchema = z.string().max(8_000_000);
const fieldsSchema = z.custom<object>((v) => typeof v === "object" && v !== null && !Array.isArray(v));

// The values themselves are read by the use cases, which name every field that does not fit.
export const addImage = action([fieldsSchema], createImage);

export const keepImage = action([idSchema, versionSchema, editsSchema], (desk, id, version, edits) =>
  renewed(`/images/${id}`, saveWritten(desk, IMAGE, id, version, edits)),
);

export const takeImageBack = action([idSchema, versionSchema], (desk, id, version) =>
  renewed(`/images/${id}`, takeBackWritten(desk, IMAGE, id, version)),
);

/** Reads the digits out of what a checksum tool prints ("DIGITS  file" or "NAME (file) = DIGITS") and keeps them. */
export const keepComputed = action(
  [idSchema, algorithmSchema, textSchema],
  async (desk, id, algorithm, line) => {
    const digits = /\b[0-9a-f]{32,128}\b/i.exec(line)?.[0] ?? line.trim();
    const checksum: Checksum = { algorithm, value: digits.toLowerCase() };
    const problem = checksumProblem(checksum);
    if (problem) return no(`This is not the output of ${algorithm}sum: ${problem}. Paste the whole line.`);
    const answer = await saveComputed(desk, id, checksum);
    revalidatePath(`/images/${id}`);
    return answer;
  },
);

export const keepProfile = action([textSchema], async (desk, yaml) => {
  const answer = await importProfile(desk, yaml);
  revalidatePath("/images");
  return answer;
});

const ownSchema = z.object({
  name: nameSchema,
  version: nameSchema,
  recognise: z.array(nameSchema).max(20),
});

/** A family of one's own from one that is like it; with an image, that image is of it. */
export const makeItMine = action(
  [nameSchema, nameSchema, idSchema.nullable(), ownSchema],
  (desk, key, version, image, own) => makeMine(desk, key, version, own, image),
);

/** What the fields of the profile form would make; nothing is kept. */
export const previewOf = action([fieldsSchema], previewProfile);

/** Keeps the fields of the profile form as the next edition. */
export const keepProfileFields = action(
  [nameSchema, nameSchema, versionSchema, fieldsSchema],
  async (desk, key, version, edition, fields) => {
    const answer = await saveProfile(desk, key, version, edition, fields);
    // A refusal changed nothing, and what is typed in the form stays as it is.
    if (answer.ok) revalidatePath(`/images/profiles/${key}/${version}`);
    return answer;
  },
);

export const keepInside = action([idSchema, nameSchema, z.unknown()], saveInside);

/** Puts a file that this browser looked into on the shelf. */
export const keepFile = action([nameSchema, z.unknown()], addFile);

export const shelve = action([nameSchema], async (desk, name) => {
  const answer = await shelveFromFolder(desk, name);
  revalidatePath("/images");
  return answer;
});

export const computeOnServer = action([idSchema, nameSchema], computeFromFolder);

export const stopOnServer = action([nameSchema], stopFolderJob);

export const readList = action([idSchema, textSchema, nameSchema], takeFromList);

/** Keeps a digest that this browser computed over the whole file. */
export const keepDigest = action(
  [idSchema, algorithmSchema, nameSchema],
  async (desk, id, algorithm, value) => {
    const problem = checksumProblem({ algorithm, value });
    return problem ? no(problem) : saveComputed(desk, id, { algorithm, value });
  },
);
