"use server";

import { redirect } from "next/navigation";
import { z } from "zod";
import { editSchema } from "@/core/sheet";
import { createBuild, issueRevision } from "@/server/builds";
import { agreeToErase, likeFamily, reread, saveJudged, undoSave, waive } from "@/server/sheet-acts";
import { sealParameter } from "@/server/seals";
import { startRun } from "@/server/runs";
import { action, idSchema, versionSchema } from "../checked";
import { desk } from "../desk";
import { isLooking } from "../look";

const wordsSchema = z.string().max(400);
/** A sheet has some eighty fields; a save that names more than this is none of ours. */
const editsSchema = z.array(editSchema).max(200);

/** A new sheet; it saves by itself from then on. */
export async function begin(machineId: string | null) {
  const read = idSchema.nullable().safeParse(machineId);
  if (!read.success || (await isLooking())) redirect("/builds");
  redirect(`/builds/${await createBuild(await desk(), read.data)}`);
}

export const save = action([idSchema, versionSchema, editsSchema, z.string().max(16).nullable()], saveJudged);

export const look = action([idSchema], reread);

export const setAside = action([idSchema, versionSchema, wordsSchema, wordsSchema], waive);

export const agree = action([idSchema, versionSchema, wordsSchema, wordsSchema], agreeToErase);

export const like = action([idSchema, wordsSchema], likeFamily);

export const issue = action([idSchema, versionSchema], issueRevision);

export const start = action([idSchema, versionSchema], startRun);

export const takeBack = action([idSchema, versionSchema], undoSave);

export const sealValue = action([idSchema, wordsSchema, wordsSchema], sealParameter);
