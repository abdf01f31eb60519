import type { z } from "zod";
import type { Answer } from "@/contract";
import type { Desk } from "@/server/desk";
import { saveWritten, type WrittenKind } from "@/server/written";

/** Writes values at the paths of a document, as its form does; the version that this made. */
export async function write<D, S extends z.ZodType>(
  desk: Desk,
  kind: WrittenKind<D, S>,
  id: string,
  version: number,
  values: Readonly<Record<string, unknown>>,
): Promise<Answer<number>> {
  const edits = Object.entries(values).map(([path, after]) => ({ path, before: null, after }));
  const answer = await saveWritten(desk, kind, id, version, edits);
  return answer.ok ? { ok: true, value: answer.view.version } : answer;
}
