import { answerFileOf, type AnswerFileOfSheet } from "@/core/answers";
import { setScripts, type SetScript } from "@/core/storage";
import { buildRows } from "@/db";
import type { Desk } from "./desk";
import { sourcesOf } from "./sources";
import { keptJudgement } from "./marks";

/** How a sheet is called on what is written from it. */
interface Written {
  number: string;
  subject: string;
  /** It stands in no issued revision yet, or was changed since the last one. */
  isDraft: boolean;
}

/** What makes the sets of a sheet. */
export interface ScriptsView extends Written {
  scripts: SetScript[];
}

/** The answer file of a sheet as it stands now. */
export interface AnswersView extends Written {
  answer: AnswerFileOfSheet;
  /** Stops of the sheet by their labels: nothing that is written from it is to be used while one stands. */
  stops: string[];
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

/** The answer file of a sheet; null when there is no such sheet. */
export async function answersView(desk: Desk, id: string): Promise<AnswersView | null> {
  const build = await buildRows.one(desk.db, id);
  if (!build) return null;
  const { number, version, revisionVersion, sheet } = build;
  const { plan, evaluation } = keptJudgement(id, await sourcesOf(desk, id, sheet));
  const stops = evaluation.stops.map(({ label }) => label);
  return {
    number,
    subject: sheet.subject,
    isDraft: version !== revisionVersion,
    answer: answerFileOf(plan),
    stops,
  };
}
