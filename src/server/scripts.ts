import { setScripts, type SetScript } from "@/core/storage";
import { buildRows } from "@/db";
import type { Desk } from "./desk";
import { sourcesOf } from "./sources";
import { keptJudgement } from "./marks";

/** What makes the sets of a sheet, with how the sheet is called in it. */
export interface ScriptsView {
  number: string;
  subject: string;
  /** It stands in no issued revision yet, or was changed since the last one. */
  isDraft: boolean;
  scripts: SetScript[];
}

/** The scripts of a sheet as it stands now; null when there is none. */
export async function scriptsView(desk: Desk, id: string): Promise<ScriptsView | null> {
  const build = await buildRows.one(desk.db, id);
  if (!build) return null;
  const { number, revision, version, revisionVersion, sheet } = build;
  const { plan } = keptJudgement(id, await sourcesOf(desk, id, sheet));
  const isDraft = version !== revisionVersion;
  const named = `Sheet ${number}${revision ? ` rev ${revision}` : ""}${isDraft ? ", changed since or not issued" : ""}`;
  return { number, subject: sheet.subject, isDraft, scripts: setScripts(plan, named) };
}
