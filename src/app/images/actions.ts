"use server";

import { revalidatePath } from "next/cache";
import { z } from "zod";
import { checksumProblem, checksumSchema, type Checksum } from "@/core/image";
import { computeFromFolder, shelveFromFolder, stopFolderJob } from "@/server/image-folder";
import { addFile, saveComputed, saveImage, saveInside, takeFromList } from "@/server/images";
import { importProfile, saveProfile } from "@/server/profiles";
import { no } from "@/server/answer";
import { checked, idSchema, versionSchema } from "../checked";
import { currentHand } from "../hand";

const nameSchema = z.string().max(400);
const algorithmSchema = checksumSchema.shape.algorithm;
/** Checksum lists of whole mirrors have some megabytes. */
const textSchema = z.string().max(8_000_000);
const fieldsSchema = z.custom<object>((v) => typeof v === "object" && v !== null && !Array.isArray(v));

export const keepImage = checked(
  [idSchema.nullable(), versionSchema, fieldsSchema],
  async (id, version, fields) => {
    const answer = await saveImage(id, version, fields);
    if (id) revalidatePath(`/images/${id}`);
    return answer;
  },
);

/** Reads the digits out of what a checksum tool prints ("DIGITS  file" or "NAME (file) = DIGITS") and keeps them. */
export const keepComputed = checked([idSchema, algorithmSchema, textSchema], async (id, algorithm, line) => {
  const digits = /\b[0-9a-f]{32,128}\b/i.exec(line)?.[0] ?? line.trim();
  const checksum: Checksum = { algorithm, value: digits.toLowerCase() };
  const problem = checksumProblem(checksum);
  if (problem) return no(`This is not what ${algorithm}sum prints: ${problem}. Paste the whole line.`);
  const answer = await saveComputed(id, checksum, await currentHand());
  revalidatePath(`/images/${id}`);
  return answer;
});

export const keepProfile = checked([textSchema], async (yaml) => {
  const answer = await importProfile(yaml, await currentHand());
  revalidatePath("/images");
  return answer;
});

/** Keeps the fields of the profile form as the next edition. */
export const keepProfileFields = checked(
  [nameSchema, nameSchema, versionSchema, fieldsSchema],
  async (key, version, edition, fields) => {
    const answer = await saveProfile(key, version, edition, fields, await currentHand());
    revalidatePath(`/images/profiles/${key}/${version}`);
    return answer;
  },
);

export const keepInside = checked([idSchema, nameSchema, z.unknown()], async (id, fileName, found) =>
  saveInside(id, fileName, found, await currentHand()),
);

/** Puts a file that this browser looked into on the shelf. */
export const keepFile = checked([nameSchema, z.unknown()], async (fileName, found) =>
  addFile(fileName, found, await currentHand()),
);

export const shelve = checked([nameSchema], async (name) => {
  const answer = await shelveFromFolder(name, await currentHand());
  revalidatePath("/images");
  return answer;
});

export const computeOnServer = checked([idSchema, nameSchema], async (id, name) =>
  computeFromFolder(id, name, await currentHand()),
);

export async function stopOnServer(name: string) {
  const read = nameSchema.safeParse(name);
  if (read.success) stopFolderJob(read.data);
}

export const readList = checked([idSchema, textSchema, nameSchema], takeFromList);

/** Keeps a digest that this browser computed over the whole file. */
export const keepDigest = checked([idSchema, algorithmSchema, nameSchema], async (id, algorithm, value) => {
  const problem = checksumProblem({ algorithm, value });
  return problem ? no(problem) : saveComputed(id, { algorithm, value }, await currentHand());
});
