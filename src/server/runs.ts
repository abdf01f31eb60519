import type { Answer, RunView } from "@/contract";
import { heldBy, holdWords } from "@/core/finding";
import { derive, evaluateSheet } from "@/core/sheet";
import { START_GATE } from "@/core/stage";
import { emptyMachine, type NamedText } from "@/core/machine";
import { makeRecord, type RunRecord } from "@/core/record";
import {
  decide,
  acceptanceOf,
  foldRun,
  freezeBuild,
  installedAt,
  nextHands,
  runCommandSchema,
} from "@/core/run";
import { compareWithPlan } from "@/core/verify";
import { buildRows, runRows } from "@/db";
import { no, STALE, yes } from "./answer";
import { sourcesOf } from "./sources";
import { bringHome } from "./imports";
import { readInto } from "./intake";
import { append } from "./run-log";
import type { Desk } from "./desk";

/** Starts the run of an issued sheet without open stops. One build has one run at a time. */
export async function startRun(desk: Desk, buildId: string, version: number): Promise<Answer<string>> {
  const { db, write } = desk;
  const build = await buildRows.one(db, buildId);
  if (!build) return no("This build no longer exists.");
  if (build.version !== version) return no(STALE);
  const judged = derive(await sourcesOf(desk, buildId, build.sheet));
  const held = heldBy(START_GATE, {
    revision: build.revision,
    isIssued: build.revision !== null && build.revisionVersion === build.version,
    stops: evaluateSheet(judged).stops,
    isRunning: (await runRows.openOf(db, buildId)) !== null,
  });
  if (held.length > 0) return no(...held.map(holdWords));
  const id = desk.newId("r");
  const at = desk.now();
  const plan = freezeBuild(build, judged);
  // Between the look at the sheet and this write others may have come: both guards stand where the write is.
  return write(async (tx): Promise<Answer<string>> => {
    if ((await buildRows.one(tx, buildId))?.version !== version) return no(STALE);
    if (await runRows.openOf(tx, buildId)) return no(START_GATE.messages["start.running"]!.says);
    await runRows.insert(tx, { id, buildId, startedAt: at, endedAt: null, plan });
    await runRows.append(tx, id, { at, key: "start", event: { kind: "started", by: desk.actor } });
    return yes(id);
  });
}

export async function runView(desk: Desk, id: string): Promise<RunView | null> {
  const { db } = desk;
  const run = await runRows.one(db, id);
  if (!run) return null;
  const log = await runRows.log(db, id);
  const state = foldRun(run.plan.steps, log);
  const at = desk.now();
  return {
    id,
    buildId: run.buildId,
    plan: run.plan,
    log,
    state,
    hands: nextHands(run.plan.steps, state, at),
    acceptance: acceptanceOf(run.plan, state),
    now: at,
  };
}

/**
 * Carries out one command: decided by the core against the log as it stands, inside the transaction that appends it.
 * A key that is already in the log was a repeated message and changes nothing. `ageSeconds` is how long the browser kept
 * it before it could be sent.
 */
export async function command(
  desk: Desk,
  runId: string,
  key: string,
  body: unknown,
  ageSeconds?: number,
): Promise<Answer<RunView>> {
  const read = runCommandSchema.safeParse(body);
  if (!read.success)
    return no(`Invalid command: ${read.error.issues[0]?.path.join(".")} ${read.error.issues[0]?.message}`);
  const done = await append(desk, runId, { key, ageSeconds }, (plan, state) =>
    decide(plan, state, read.data, desk.actor),
  );
  return viewAfter(desk, runId, done);
}

/** Compares texts read from the installed system with the plan, and changes nothing. */
export async function previewAcceptance(desk: Desk, runId: string, texts: readonly NamedText[]) {
  const read = await readAcceptance(desk, runId, texts);
  if (!read.ok) return read;
  const { intake: _, ...preview } = read.value;
  return yes(preview);
}

async function readAcceptance(desk: Desk, runId: string, texts: readonly NamedText[]) {
  const { db } = desk;
  const run = await runRows.one(db, runId);
  if (!run) return no("This run no longer exists.");
  const state = foldRun(run.plan.steps, await runRows.log(db, runId));
  const at = desk.now();
  const read = await readInto(desk, emptyMachine(), texts, at);
  if (!read.ok) return read;
  const { intake } = read.value;
  const { facts } = read.value.document;
  const reading = { takenAt: intake.takenAt, now: at, since: installedAt(run.plan, state) };
  return yes({
    intake,
    lines: compareWithPlan(run.plan.expectations, facts, reading),
    rejected: intake.rejected,
    understood: intake.readings.length,
  });
}

/**
 * Puts an acceptance on the log, with the lines worked out here again from the texts. What it read becomes the machine's
 * facts, unless it is another chassis.
 */
export async function accept(
  desk: Desk,
  runId: string,
  key: string,
  texts: NamedText[],
): Promise<Answer<RunView>> {
  const preview = await readAcceptance(desk, runId, texts);
  if (!preview.ok) return preview;
  const { understood, lines, intake } = preview.value;
  if (understood === 0) return no("No known output in these texts, so nothing was accepted.");
  const from = texts.map((t) => t.name).join(", ");
  const done = await append(
    desk,
    runId,
    { key },
    (_, state) =>
      state.status === "handed over"
        ? no("This run has been handed over.")
        : yes({ kind: "accepted", from: from.slice(0, 300), lines, by: desk.actor }),
    async (tx, run, state, at) => {
      const { id } = run.plan.machine;
      if (id !== null && state.status !== "stopped") await bringHome(desk, tx, id, texts, intake, at);
    },
  );
  return viewAfter(desk, runId, done);
}

async function viewAfter(desk: Desk, runId: string, done: Answer<null>): Promise<Answer<RunView>> {
  if (!done.ok) return done;
  const view = await runView(desk, runId);
  return view ? yes(view) : no("This run no longer exists.");
}

export async function recordOf(desk: Desk, runId: string): Promise<RunRecord | null> {
  const view = await runView(desk, runId);
  return view ? makeRecord(view.plan, view.log) : null;
}
