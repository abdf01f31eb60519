"use server";

import { redirect } from "next/navigation";
import type { Edit } from "@/core/build";
import { createBuild, issueRevision, saveEdits, undoSave, waive } from "@/server/builds";
import { startRun } from "@/server/runs";
import { currentHand } from "../hand";

/** A new sheet; it saves by itself from then on. */
export async function begin(machineId: string | null) {
  redirect(`/builds/${await createBuild(machineId)}`);
}

export async function save(id: string, version: number, edits: Edit[]) {
  return saveEdits(id, version, edits, await currentHand());
}

export async function setAside(id: string, version: number, key: string, reason: string) {
  return waive(id, version, key, reason, await currentHand());
}

export async function issue(id: string, version: number) {
  return issueRevision(id, version, await currentHand());
}

export async function start(id: string, version: number) {
  return startRun(id, version, await currentHand());
}

export async function takeBack(id: string, target: number) {
  return undoSave(id, target, await currentHand());
}
