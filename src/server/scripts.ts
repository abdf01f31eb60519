import {
  answerFileOf,
  imageSeedOf,
  type AnswerFile,
  type AnswerFileOfSheet,
  type Hashes,
} from "@/core/answers";
import type { Plan } from "@/core/sheet";
import { setScripts, type SetScript } from "@/core/storage";
import { buildRows } from "@/db";
import type { Desk } from "./desk";
import { hashesOf, masked } from "./seals";
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
  /** What an image of the system that is installed already reads at its first start; null where its family has none. */
  seed: AnswerFileOfSheet | null;
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

/** A text in which no sealed hash stands. */
export const withoutHashes = (text: string): string =>
  text.replace(/\$6\$[./0-9A-Za-z$=]+/g, "(stored hash)");

const maskedFile = (file: AnswerFile): AnswerFile => ({
  ...file,
  lines: file.lines.map(({ text, from }) => ({
    text: withoutHashes(text),
    from,
  })),
});

/** Files as a page may show them: the sealed hashes stand in what is fetched only. */
const maskedFiles = (answer: AnswerFileOfSheet): AnswerFileOfSheet =>
  answer.kind === "file"
    ? { ...answer, file: maskedFile(answer.file), also: answer.also.map(maskedFile) }
    : answer;

/** The answer file of a sheet as it is given, without its secrets. */
export const shownAnswer = async (desk: Desk, id: string, plan: Plan): Promise<AnswerFileOfSheet> =>
  maskedFiles(answerFileOf(plan, masked(await hashesOf(desk, id))));

/** The answer file of a sheet, without its secrets, for a page; null when there is no such sheet. */
export async function answersShown(desk: Desk, id: string): Promise<AnswersView | null> {
  const view = await answersView(desk, id, masked);
  return view && { ...view, answer: maskedFiles(view.answer), seed: view.seed && maskedFiles(view.seed) };
}

/** The answer file of a sheet, with its secrets as `look` has them; null when there is no such sheet. */
export async function answersView(
  desk: Desk,
  id: string,
  look: (hashes: Hashes) => Hashes = (hashes) => hashes,
): Promise<AnswersView | null> {
  const build = await buildRows.one(desk.db, id);
  if (!build) return null;
  const { number, version, revisionVersion, sheet } = build;
  const { plan, evaluation } = keptJudgement(id, await sourcesOf(desk, id, sheet));
  const stops = evaluation.stops.map(({ label }) => label);
  const hashes = look(await hashesOf(desk, id));
  return {
    number,
    subject: sheet.subject,
    isDraft: version !== revisionVersion,
    answer: answerFileOf(plan, hashes),
    seed: imageSeedOf(plan, hashes),
    stops,
  };
}
