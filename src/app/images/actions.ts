"use server";

import { revalidatePath } from "next/cache";
import { checksumProblem, type Checksum } from "@/core/image";
import { computeFromFolder, shelveFromFolder, stopFolderJob } from "@/server/image-folder";
import { addFile, saveComputed, saveImage, saveInside, takeFromList } from "@/server/images";
import { importProfile, saveProfile } from "@/server/profiles";
import { no } from "@/server/answer";
import { currentHand } from "../hand";

export async function keepImage(id: string | null, version: number, fields: object) {
  const answer = await saveImage(id, version, fields);
  if (id) revalidatePath(`/images/${id}`);
  return answer;
}

/** Reads the digits out of what a checksum tool prints ("DIGITS  file" or "NAME (file) = DIGITS") and keeps them. */
export async function keepComputed(id: string, algorithm: Checksum["algorithm"], line: string) {
  const digits = /\b[0-9a-f]{32,128}\b/i.exec(line)?.[0] ?? line.trim();
  const checksum: Checksum = { algorithm, value: digits.toLowerCase() };
  const problem = checksumProblem(checksum);
  if (problem) return no(`This is not what ${algorithm}sum prints: ${problem}. Paste the whole line.`);
  const answer = await saveComputed(id, checksum, await currentHand());
  revalidatePath(`/images/${id}`);
  return answer;
}

export async function keepProfile(yaml: string) {
  const answer = await importProfile(yaml, await currentHand());
  revalidatePath("/images");
  return answer;
}

/** Keeps the fields of the profile form as the next edition. */
export async function keepProfileFields(key: string, version: string, edition: number, fields: object) {
  const answer = await saveProfile(key, version, edition, fields, await currentHand());
  revalidatePath(`/images/profiles/${key}/${version}`);
  return answer;
}

export async function keepInside(id: string, fileName: string, found: unknown) {
  return saveInside(id, fileName, found, await currentHand());
}

/** Puts a file that this browser looked into on the shelf. */
export async function keepFile(fileName: string, found: unknown) {
  return addFile(fileName, found, await currentHand());
}

export async function shelve(name: string) {
  const answer = await shelveFromFolder(name, await currentHand());
  revalidatePath("/images");
  return answer;
}

export async function computeOnServer(id: string, name: string) {
  return computeFromFolder(id, name, await currentHand());
}

export async function stopOnServer(name: string) {
  stopFolderJob(name);
}

export async function readList(id: string, text: string, from: string) {
  return takeFromList(id, text, from);
}

/** Keeps a digest that this browser computed over the whole file. */
export async function keepDigest(id: string, algorithm: Checksum["algorithm"], value: string) {
  const problem = checksumProblem({ algorithm, value });
  return problem ? no(problem) : saveComputed(id, { algorithm, value }, await currentHand());
}
