"use server";

import { redirect } from "next/navigation";
import { z } from "zod";
import { editSchema } from "@/core/sheet";
import { agreeToErase, createBuild, issueRevision, saveEdits, undoSave, waive } from "@/server/builds";
import { startRun } from "@/server/runs";
import { checked, idSchema, versionSchema } from "../checked";
import { currentHand } from "../hand";

const wordsSchema = z.string().max(400);
/** A sheet has some eighty fields; a save that names more than this is none of ours. */
const editsSchema = z.array(editSchema).max(200);

/** A new sheet; it saves by itself from then on. */
export async function begin(machineId: string | null) {
  const read = idSchema.nullable().safeParse(machineId);
  redirect(read.success ? `/builds/${await createBuild(read.data)}` : "/builds");
}

export const save = checked([idSchema, versionSchema, editsSchema], async (id, version, edits) =>
  saveEdits(id, version, edits, await currentHand()),
);

export const setAside = checked(
  [idSchema, versionSchema, wordsSchema, wordsSchema],
  async (id, version, key, reason) => waive(id, version, key, reason, await currentHand()),
);

export const agree = checked(
  [idSchema, versionSchema, wordsSchema, wordsSchema],
  async (id, version, drive, typed) => agreeToErase(id, version, drive, typed, await currentHand()),
);

export const issue = checked([idSchema, versionSchema], async (id, version) =>
  issueRevision(id, version, await currentHand()),
);

export const start = checked([idSchema, versionSchema], async (id, version) =>
  startRun(id, version, await currentHand()),
);

export const takeBack = checked([idSchema, versionSchema], async (id, target) =>
  undoSave(id, target, await currentHand()),
);
