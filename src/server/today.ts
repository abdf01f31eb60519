import { evaluateBuild } from "@/core/build";
import { sumDurations } from "@/core/estimate";
import { dueDates } from "@/core/record";
import { foldRun, nextHands } from "@/core/run";
import { dayAt, dayEverywhere } from "@/core/site";
import { addSeconds } from "@/core/units";
import { buildRows, imageRows, machineRows, runRows, siteRows } from "@/db";
import { contextOf, surroundings } from "./builds";
import { damagedCount, damagedIn } from "./damaged";
import { database, now } from "./database";

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

/** Sheets that are neither running nor handed over, with their first stop in words. */
async function preparing() {
  const { db } = await database();
  const [builds, runs, around] = await Promise.all([buildRows.all(db), runRows.marks(db), surroundings(db)]);
  const waiting = builds.filter((b) => !runs.some((r) => r.buildId === b.id)).slice(0, 12);
  return Promise.all(
    waiting.map(async (build) => {
      const head = {
        id: build.id,
        number: build.number,
        subject: build.sheet.subject,
        machine: around.marks.find((m) => m.id === build.sheet.machine.id)?.name ?? null,
        revision: build.revision,
      };
      const context = await contextOf(db, build.id, build.sheet, around).catch((error: unknown) => {
        if (damagedIn(error)) return null;
        throw error;
      });
      if (!context)
        return {
          ...{ ...head, hook: "A" as const, cautions: 0, stops: 1, likelySeconds: 0 },
          firstStop: { label: "–", says: "What this sheet is about is damaged; see the damaged documents." },
        };
      const { stops, findings, hook, steps } = evaluateBuild(context);
      return {
        ...head,
        hook,
        firstStop: stops[0] ? { label: stops[0].label, says: stops[0].says } : null,
        cautions: findings.filter((f) => f.severity === "caution" && !f.waiver).length,
        stops: stops.length,
        likelySeconds: sumDurations(steps.map((s) => s.duration)).likelySeconds,
      };
    }),
  );
}

/** Dates that are over and not done, and dates that come. */
async function dates(at: string) {
  const { db } = await database();
  const [sites, builds, images, machines, runs] = await Promise.all([
    siteRows.all(db),
    buildRows.all(db),
    imageRows.all(db),
    machineRows.listed(db),
    runRows.marks(db),
  ]);
  const ended = new Set(runs.filter((r) => r.endedAt !== null).map((r) => r.buildId));
  const days = new Map(sites.map((s) => [s.id, dayAt(s.site, at)]));
  const dayOf = (machineId: string | null): string =>
    days.get(machines.find((m) => m.id === machineId)?.siteId ?? "") ?? dayAt(null, at);
  return dueDates(
    {
      machines: machines.map(({ id, name, summary }) => ({
        ...{ id, name, today: dayOf(id) },
        dates: summary.dates,
      })),
      builds: builds.map(({ id, number, sheet }) => ({
        id,
        name: sheet.subject || number,
        hostName: sheet.answers.hostName,
        imageId: sheet.image.id,
        licensed: sheet.handOver.licence === "licensed",
        evaluationEnds: sheet.handOver.evaluationEnds,
        fixedBy: sheet.network.school === "dynamic" ? sheet.network.fixedBy : null,
        handedOver: ended.has(id),
        today: dayOf(sheet.machine.id),
      })),
      images: images.map(({ id, image }) => ({ id, name: image.name, supportEnds: image.supportEnds })),
    },
    dayEverywhere(
      sites.map((s) => s.site),
      at,
    ),
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
