"use server";

import { z } from "zod";
import { compatNoteSchema, trialSchema } from "@/core/compat";
import { registerEntrySchema, wipeSchema } from "@/core/machine";
import { readingSchema } from "@/core/readings";
import { issueCode } from "@/server/collector";
import { beginFirst } from "@/server/first-day";
import { createMachine } from "@/server/imports";
import { cloneMachine, placeInBay, removePicture } from "@/server/machines";
import { importReadings, typeReading } from "@/server/readings";
import { previewList, takeList } from "@/server/machine-list";
import { addToRegister, editDrive, shelveDrive, wipeDrive, writeDrive } from "@/server/drives";
import { addNote, addTrial, judgeNote } from "@/server/compat";
import { MACHINE, saveWritten, takeBackWritten } from "@/server/written";
import { action, editsSchema, idSchema, textsSchema, versionSchema } from "../checked";
import { renewed } from "../renewed";
import { desk } from "../desk";

const nameSchema = z.string().max(400);
const keySchema = z.string().min(1).max(400);
const textSchema = z.string().max(8_000_000);
const register = registerEntrySchema.shape;

/** The first machine with its sheet, which it leads to. */
export const beginFirstSheet = action([nameSchema, textsSchema], beginFirst);

/** Makes a machine; with an empty site id at a new site of that name. */
export const addMachine = action(
  [z.string().max(80), nameSchema, nameSchema, textsSchema],
  (desk, siteId, siteName, name, texts) =>
    createMachine(desk, siteId === "" ? { newSite: siteName } : siteId, name, texts),
);

// The values themselves are read by the use case, which names every field that does not fit.
export const keepWritten = action([idSchema, versionSchema, editsSchema], (desk, id, version, edits) =>
  renewed(`/machines/${id}`, saveWritten(desk, MACHINE, id, version, edits)),
);

export const takeWrittenBack = action([idSchema, versionSchema], (desk, id, version) =>
  renewed(`/machines/${id}`, takeBackWritten(desk, MACHINE, id, version)),
);

export const makeCode = action([idSchema], issueCode);

export const putInBay = action([idSchema, versionSchema, nameSchema, nameSchema.nullable()], placeInBay);

export const makeTwin = action([idSchema, nameSchema], cloneMachine);

export async function dropPicture(id: string) {
  const read = idSchema.safeParse(id);
  if (read.success) await removePicture(await desk(), read.data);
}

export const lookAtList = action([textSchema, nameSchema], previewList);

export const takeListOver = action([textSchema, nameSchema], takeList);

export const keepReading = action(
  [
    idSchema,
    readingSchema
      .pick({ kind: true, what: true, state: true, value: true, limit: true })
      .extend({ how: readingSchema.shape.how.optional() }),
  ],
  typeReading,
);

export const keepReadingsOf = action([idSchema, textsSchema, readingSchema.shape.state], importReadings);

export const addDrive = action(
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

export const recordErasure = action(
  [keySchema, versionSchema, wipeSchema.shape.method, nameSchema],
  wipeDrive,
);

export const writeDownWriting = action(
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

export const putOnShelf = action([keySchema, versionSchema, nameSchema, z.boolean()], shelveDrive);

export const keepDrive = action(
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

export const addCompatNote = action([note], addNote);

export const keepVerdict = action(
  [idSchema, versionSchema, note.pick({ verdict: true, condition: true, evidence: true })],
  judgeNote,
);

export const keepTrial = action(
  [idSchema, versionSchema, trialSchema.omit({ at: true, by: true })],
  addTrial,
);
