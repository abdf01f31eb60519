import type { SheetMark } from "@/core/sheet";
import { calledFor, dueDates, MOST_COMING } from "@/core/record";
import { foldRun, nextHands, runningRow, type RunningRow } from "@/core/run";
import { dayAt, dayEverywhere } from "@/core/site";
import { buildRows, claimRows, imageRows, runRows, siteRows } from "@/db";
import type { BuildRow } from "./builds";
import { sourcesOfAll } from "./sources";
import { damagedCount } from "./damaged";
import { keptMark } from "./marks";
import { installing } from "./netboot/board";
import type { Desk } from "./desk";

/** The builds that are being carried out, each with what it waits for. */
export async function running(desk: Desk): Promise<RunningRow[]> {
  const { db } = desk;
  const at = desk.now();
  const open = await runRows.open(db);
  return Promise.all(open.map(async ({ id, plan }) => runningRow(id, plan, await runRows.log(db, id), at)));
}

const MOST_PREPARING = 12;

const DAMAGED: SheetMark = {
  ...{ hook: "A", next: "A Machine", cautions: 0, stops: 1, likelySeconds: 0 },
  firstStop: {
    ...{ label: "–", title: "Damaged document" },
    says: "The document of this date is damaged; see Damaged documents.",
  },
};

/** Some sheets with what stands in their way. */
async function marked(desk: Desk, waiting: readonly BuildRow[]) {
  const contexts = await sourcesOfAll(desk, waiting);
  return waiting.map((build, i) => {
    const context = contexts[i]!;
    const { sheet } = build;
    const lacks = (sheet.machine.id && !context.machine) || (sheet.image.id && !context.image);
    return { build, machine: context.machine, mark: lacks ? DAMAGED : keptMark(build.id, context) };
  });
}

/** Sheets that are neither running nor handed over, with their first stop in words. */
async function preparing(desk: Desk) {
  const waiting = await buildRows.preparing(desk.db, MOST_PREPARING);
  return (await marked(desk, waiting)).map(({ build: { id, number, sheet, revision }, machine, mark }) => ({
    ...{ id, number, subject: sheet.subject, machine: machine?.name ?? null, revision },
    ...mark,
  }));
}

/** As many as stand in sight of a list at once. */
const MOST_MARKS = 60;

/** What stands in the way of some sheets, by their ids; one that is not there is left out. */
export async function sheetMarks(desk: Desk, ids: readonly string[]): Promise<Record<string, SheetMark>> {
  const rows = await buildRows.some(desk.db, ids.slice(0, MOST_MARKS));
  return Object.fromEntries((await marked(desk, rows)).map(({ build, mark }) => [build.id, mark]));
}

/** Dates that are over and not done, and dates that come. */
async function dates(desk: Desk, at: string) {
  const { db } = desk;
  const [sites, images, wanted] = await Promise.all([
    siteRows.all(db),
    imageRows.all(db),
    buildRows.imagesWanted(db),
  ]);
  const days = new Map(sites.map((s) => [s.id, dayAt(s.site, at)]));
  const anywhere = dayAt(null, at);
  // What is over anywhere is before the latest day that it is at any site.
  const latest = [...days.values(), anywhere].sort().at(-1)!;
  const { rows, more } = await claimRows.dates(db, latest, MOST_COMING);
  return dueDates(
    rows.map((row) => ({ ...calledFor(row), today: days.get(row.siteId ?? "") ?? anywhere })),
    images.map(({ id, image: { name, supportEnds } }) => ({ id, name, supportEnds, wanted: wanted.has(id) })),
    dayEverywhere(
      sites.map((s) => s.site),
      at,
    ),
    more,
  );
}

export async function todayView(desk: Desk) {
  const at = desk.now();
  const [rows, boots, sheets, due, damaged] = await Promise.all([
    running(desk),
    installing(desk),
    preparing(desk),
    dates(desk, at),
    damagedCount(desk),
  ]);
  return { now: at, running: rows, installing: boots, preparing: sheets, dates: due, damaged };
}

/** A running build as far as it calls for a person. */
export interface HandsCall {
  id: string;
  machine: string;
  /** Null while nothing is waited for. */
  hands: { at: string; what: string; late: boolean } | null;
  /** A wait is running, or has come to its likely end without an answer. */
  waits: boolean;
}

/** When each running build needs hands next; small enough to be asked for on every page. */
export async function handsCalls(desk: Desk): Promise<{ now: string; runs: HandsCall[] }> {
  const { db } = desk;
  const at = desk.now();
  const open = await runRows.open(db);
  const runs = await Promise.all(
    open.map(async ({ id, plan }) => {
      const state = foldRun(plan.steps, await runRows.log(db, id));
      return {
        id,
        machine: plan.machine.name,
        hands: nextHands(plan.steps, state, at),
        waits: state.status === "running" && state.timer !== null,
      };
    }),
  );
  return { now: at, runs };
}
