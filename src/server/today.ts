import type { SheetMark } from "@/core/build";
import { calledFor, dueDates, MOST_COMING } from "@/core/record";
import { foldRun, nextHands } from "@/core/run";
import { dayAt, dayEverywhere } from "@/core/site";
import { addSeconds } from "@/core/units";
import { buildRows, claimRows, imageRows, runRows, siteRows } from "@/db";
import { contextsOf } from "./contexts";
import { damagedCount } from "./damaged";
import { database, now } from "./database";
import { keptMark } from "./marks";

/** A stretch of a running build on the hands line: hands-on or waiting, from the log where it happened, else as estimated. */
export interface Stretch {
  from: string;
  to: string;
  kind: "hands" | "wait";
  past: boolean;
  title: string;
}

export interface RunningRow {
  id: string;
  machine: string;
  subject: string;
  number: string;
  status: string;
  step: string;
  position: string;
  hands: { at: string; what: string; late: boolean } | null;
  stretches: Stretch[];
  timeZone: string;
}

async function running(): Promise<RunningRow[]> {
  const { db } = await database();
  const at = now();
  return Promise.all(
    (await runRows.open(db)).map(async (run) => {
      const { plan } = run;
      const state = foldRun(plan.steps, await runRows.log(db, run.id));
      let cursor = at;
      const stretches = plan.steps.flatMap((step, i): Stretch[] => {
        const own = state.steps[i];
        const kind = step.kind === "wait" ? "wait" : "hands";
        if (own?.startedAt && own.endedAt)
          return [{ from: own.startedAt, to: own.endedAt, kind, past: true, title: step.title }];
        if (i < state.current || state.status === "handed over") return [];
        const from = own?.startedAt ?? cursor;
        const planned = addSeconds(from, step.duration.likelySeconds);
        const to = planned > at ? planned : at;
        cursor = to;
        return [{ from, to, kind, past: false, title: step.title }];
      });
      return {
        id: run.id,
        machine: plan.machineName,
        subject: plan.subject,
        number: `${plan.number} rev ${plan.revision}`,
        status: state.status,
        step: plan.steps[state.current]?.title ?? "Accept and hand over",
        position: `${Math.min(state.current + 1, plan.steps.length)} of ${plan.steps.length}`,
        hands: nextHands(plan.steps, state, at),
        stretches,
        timeZone: plan.timeZone,
      };
    }),
  );
}

const MOST_PREPARING = 12;

const DAMAGED: SheetMark = {
  ...{ hook: "A", cautions: 0, stops: 1, likelySeconds: 0 },
  firstStop: { label: "–", says: "What this sheet is about is damaged; see the damaged documents." },
};

/** Sheets that are neither running nor handed over, with their first stop in words. */
async function preparing() {
  const { db } = await database();
  const waiting = await buildRows.preparing(db, MOST_PREPARING);
  const contexts = await contextsOf(db, waiting);
  return waiting.map(({ id, number, sheet, revision }, i) => {
    const context = contexts[i]!;
    const lacks = (sheet.machine.id && !context.machine) || (sheet.image.id && !context.image);
    return {
      ...{ id, number, subject: sheet.subject, machine: context.machine?.name ?? null, revision },
      ...(lacks ? DAMAGED : keptMark(id, context)),
    };
  });
}

/** Dates that are over and not done, and dates that come. */
async function dates(at: string) {
  const { db } = await database();
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

export async function todayView() {
  const at = now();
  const [rows, sheets, due, damaged] = await Promise.all([running(), preparing(), dates(at), damagedCount()]);
  return { now: at, running: rows, preparing: sheets, dates: due, damaged };
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
export async function handsCalls(): Promise<{ now: string; runs: HandsCall[] }> {
  const { db } = await database();
  const at = now();
  const open = await runRows.open(db);
  const runs = await Promise.all(
    open.map(async ({ id, plan }) => {
      const state = foldRun(plan.steps, await runRows.log(db, id));
      return {
        id,
        machine: plan.machineName,
        hands: nextHands(plan.steps, state, at),
        waits: state.status === "running" && state.timer !== null,
      };
    }),
  );
  return { now: at, runs };
}
