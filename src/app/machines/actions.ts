"use server";

import { revalidatePath } from "next/cache";
import { z } from "zod";
import { compatNoteSchema, trialSchema } from "@/core/compat";
import { factsSchema, registerEntrySchema, typedSchema, wipeSchema, type Typed } from "@/core/machine";
import { readingSchema } from "@/core/readings";
import { issueCode } from "@/server/collector";
import { createMachine } from "@/server/imports";
import { cloneMachine, placeInBay, removePicture, saveNotes, saveTyped, typeFacts } from "@/server/machines";
import { importReadings, typeReading } from "@/server/readings";
import { previewList, takeList } from "@/server/machine-list";
import { addToRegister, editDrive, shelveDrive, wipeDrive, writeDrive } from "@/server/drives";
import { addNote, addTrial, judgeNote } from "@/server/compat";
import { createSite } from "@/server/sites";
import { checked, idSchema, textsSchema, versionSchema } from "../checked";
import { currentHand } from "../hand";

const nameSchema = z.string().max(400);
const keySchema = z.string().min(1).max(400);
const textSchema = z.string().max(8_000_000);
const controllerSchema = factsSchema.shape.controller.unwrap();
const register = registerEntrySchema.shape;
// Longer values, and what the document itself forbids, are refused by the use cases with the name of their field.
const typedPart = z.custom<Partial<Typed>>((v) => typeof v === "object" && v !== null && !Array.isArray(v));
const typedKeys = Object.keys(typedSchema.shape);

/** Makes a machine; with an empty site id the site is made first, by its name. */
export const addMachine = checked(
  [z.string().max(80), nameSchema, nameSchema, textsSchema],
  async (siteId, siteName, name, texts) => {
    let site = siteId;
    if (site === "") {
      const made = await createSite(siteName);
      if (!made.ok) return made;
      site = made.value;
    }
    return createMachine(site, name, texts, await currentHand());
  },
);

export const keepController = checked(
  [idSchema, versionSchema, controllerSchema],
  async (id, version, values) => {
    const answer = await typeFacts(id, version, "controller", values, await currentHand());
    revalidatePath(`/machines/${id}`);
    return answer;
  },
);

export const keepNotes = checked([idSchema, versionSchema, textSchema], saveNotes);

export const makeCode = checked([idSchema], issueCode);

export const keepTyped = checked(
  [idSchema, versionSchema, typedPart.refine((v) => Object.keys(v).every((k) => typedKeys.includes(k)))],
  saveTyped,
);

export const putInBay = checked(
  [idSchema, versionSchema, nameSchema, nameSchema.nullable()],
  async (id, version, driveId, bay) => placeInBay(id, version, driveId, bay, await currentHand()),
);

export const makeTwin = checked([idSchema, nameSchema], cloneMachine);

export async function dropPicture(id: string) {
  const read = idSchema.safeParse(id);
  if (read.success) await removePicture(read.data);
}

export const lookAtList = checked([textSchema, nameSchema], previewList);

export const takeListOver = checked([textSchema, nameSchema], takeList);

export const keepReading = checked(
  [
    idSchema,
    readingSchema
      .pick({ kind: true, what: true, state: true, value: true, limit: true })
      .extend({ how: readingSchema.shape.how.optional() }),
  ],
  async (id, values) => typeReading(id, values, await currentHand()),
);

export const keepReadingsOf = checked(
  [idSchema, textsSchema, readingSchema.shape.state],
  async (id, texts, state) => importReadings(id, texts, state, await currentHand()),
);

export const addDrive = checked(
  [
    z.object({
      label: nameSchema,
      serial: nameSchema,
      model: nameSchema,
      media: register.media,
      sizeBytes: z.number(),
      place: nameSchema,
      spare: z.boolean(),
      holds: nameSchema,
    }),
  ],
  addToRegister,
);

export const recordErasure = checked(
  [keySchema, versionSchema, wipeSchema.shape.method, nameSchema],
  async (key, version, method, remark) => wipeDrive(key, version, method, remark, await currentHand()),
);

export const writeDownWriting = checked(
  [
    keySchema,
    versionSchema,
    z.object({
      imageId: idSchema,
      written: register.written.unwrap().unwrap(),
      scheme: register.scheme.unwrap(),
      compared: z.boolean(),
    }),
  ],
  writeDrive,
);

export const putOnShelf = checked([keySchema, versionSchema, nameSchema, z.boolean()], shelveDrive);

export const keepDrive = checked(
  [
    keySchema,
    versionSchema,
    z.object({
      label: z.string().optional(),
      notes: z.string().optional(),
      holds: z.string().optional(),
      written: register.written.unwrap().optional(),
      speedClass: register.speedClass.unwrap().optional(),
    }),
  ],
  editDrive,
);

const note = compatNoteSchema.omit({ schemaVersion: true, by: true, at: true, trials: true });

export const addCompatNote = checked([note], async (values) => addNote(values, await currentHand()));

export const keepVerdict = checked(
  [idSchema, versionSchema, note.pick({ verdict: true, condition: true, evidence: true })],
  async (id, version, part) => judgeNote(id, version, part, await currentHand()),
);

export const keepTrial = checked(
  [idSchema, versionSchema, trialSchema.omit({ at: true, by: true })],
  async (id, version, trial) => addTrial(id, version, trial, await currentHand()),
);
