"use server";

import { revalidatePath } from "next/cache";
import type { NamedText, Typed } from "@/core/machine";
import { issueCode } from "@/server/collector";
import { createMachine } from "@/server/imports";
import { cloneMachine, placeInBay, removePicture, saveNotes, saveTyped, typeFacts } from "@/server/machines";
import { importReadings, typeReading } from "@/server/readings";
import { previewList, takeList } from "@/server/machine-list";
import { addToRegister, editDrive, shelveDrive, wipeDrive, writeDrive } from "@/server/drives";
import { addNote, addTrial, judgeNote } from "@/server/compat";
import { createSite } from "@/server/sites";
import { currentHand } from "../hand";

/** Makes a machine; with an empty site id the site is made first, by its name. */
export async function addMachine(siteId: string, siteName: string, name: string, texts: NamedText[]) {
  let site = siteId;
  if (site === "") {
    const made = await createSite(siteName);
    if (!made.ok) return made;
    site = made.value;
  }
  return createMachine(site, name, texts, await currentHand());
}

export async function keepController(
  id: string,
  version: number,
  values: {
    present: boolean;
    address: string | null;
    virtualMedia: string;
    mediaBytesPerSecond: number | null;
    loginKept: string | null;
  },
) {
  const answer = await typeFacts(id, version, "controller", values, await currentHand());
  revalidatePath(`/machines/${id}`);
  return answer;
}

export async function keepNotes(id: string, version: number, notes: string) {
  return saveNotes(id, version, notes);
}

export async function makeCode(id: string) {
  return issueCode(id);
}

export async function keepTyped(id: string, version: number, part: Partial<Typed>) {
  return saveTyped(id, version, part);
}

export async function putInBay(id: string, version: number, driveId: string, bay: string | null) {
  return placeInBay(id, version, driveId, bay, await currentHand());
}

export async function makeTwin(id: string, name: string) {
  return cloneMachine(id, name);
}

export async function dropPicture(id: string) {
  await removePicture(id);
}

export async function lookAtList(text: string, from: string) {
  return previewList(text, from);
}

export async function takeListOver(text: string, from: string) {
  return takeList(text, from);
}

export async function keepReading(id: string, values: Parameters<typeof typeReading>[1]) {
  return typeReading(id, values, await currentHand());
}

export async function keepReadingsOf(
  id: string,
  texts: NamedText[],
  state: Parameters<typeof importReadings>[2],
) {
  return importReadings(id, texts, state, await currentHand());
}

export async function addDrive(values: Parameters<typeof addToRegister>[0]) {
  return addToRegister(values);
}

export async function recordErasure(
  key: string,
  version: number,
  method: Parameters<typeof wipeDrive>[2],
  remark: string,
) {
  return wipeDrive(key, version, method, remark, await currentHand());
}

export async function writeDownWriting(
  key: string,
  version: number,
  writing: Parameters<typeof writeDrive>[2],
) {
  return writeDrive(key, version, writing);
}

export async function putOnShelf(key: string, version: number, place: string, spare: boolean) {
  return shelveDrive(key, version, place, spare);
}

export async function keepDrive(key: string, version: number, part: Parameters<typeof editDrive>[2]) {
  return editDrive(key, version, part);
}

export async function addCompatNote(values: Parameters<typeof addNote>[0]) {
  return addNote(values, await currentHand());
}

export async function keepVerdict(id: string, version: number, part: Parameters<typeof judgeNote>[2]) {
  return judgeNote(id, version, part, await currentHand());
}

export async function keepTrial(id: string, version: number, trial: Parameters<typeof addTrial>[2]) {
  return addTrial(id, version, trial, await currentHand());
}
