import { intakeOf, type Asked } from "@/core/sheet";
import { buildRows } from "@/db";
import type { Desk } from "./desk";
import { keptJudgement } from "./marks";
import { sourcesOfAll } from "./sources";

/** What the screens of a sheet will ask; `asked` is null while nobody knows. */
export interface IntakeLine {
  id: string;
  number: string;
  subject: string;
  machine: string | null;
  asked: number | null;
  open: Asked[];
}

/** Sheets whose installers have still to be answered, at most. */
const MOST = 500;

/** For every sheet that is neither running nor handed over: what will be asked, and what of it nobody has decided. */
export async function intakeList(desk: Desk): Promise<IntakeLine[]> {
  const waiting = await buildRows.preparing(desk.db, MOST);
  const sources = await sourcesOfAll(desk, waiting);
  return waiting.map(({ id, number, sheet }, i): IntakeLine => {
    const intake = intakeOf(keptJudgement(id, sources[i]!).plan);
    return {
      ...{ id, number, subject: sheet.subject, machine: sources[i]!.machine?.name ?? null },
      ...{ asked: intake?.asked.length ?? null, open: intake?.open ?? [] },
    };
  });
}
