import { evaluateBuild } from "@/core/build";
import { emptyMachine, mergeReadings, readTexts, recordWriting, type NamedText } from "@/core/machine";
import { makeRecord, type BuildRecord } from "@/core/record";
import {
  decide,
  foldRun,
  freezePlan,
  measuredTransfer,
  nextHands,
  runCommandSchema,
  type LoggedEvent,
  type RunEvent,
  type RunPlan,
  type RunState,
} from "@/core/run";
import { compareWithPlan, type AcceptanceLine } from "@/core/verify";
import { buildRows, driveRows, runRows, transferRows, type Tx } from "@/db";
import { no, STALE, yes, type Answer } from "./answer";
import { contextOf, surroundings } from "./builds";
import { database, now } from "./database";
import { newId } from "./ids";

export interface RunView {
  id: string;
  buildId: string;
  plan: RunPlan;
  log: LoggedEvent[];
  state: RunState;
  hands: ReturnType<typeof nextHands>;
  now: string;
}

/** Starts the run of an issued sheet without open stops. One build has one run at a time. */
export async function startRun(buildId: string, version: number, by: string): Promise<Answer<string>> {
  const { db, write } = await database();
  const build = await buildRows.one(db, buildId);
  if (!build) return no("This build is no longer there.");
  if (build.version !== version) return no(STALE);
  if (build.revision === null || build.revisionVersion !== build.version)
    return no(
      "The sheet has changed since its last revision: issue one first, so that the run has a letter.",
    );
  const context = await contextOf(db, buildId, build.sheet, await surroundings(db));
  const { stops } = evaluateBuild(context);
  if (stops.length > 0)
    return no(
      `The run cannot start with open stops: ${stops.map((s) => `${s.label} ${s.title}`).join(", ")}.`,
    );
  if ((await runRows.marks(db)).some((r) => r.buildId === buildId && r.endedAt === null))
    return no("This build is being carried out already.");
  const id = newId("r");
  const at = now();
  await write(async (tx) => {
    await runRows.insert(tx, { id, buildId, startedAt: at, endedAt: null, plan: freezePlan(build, context) });
    await runRows.append(tx, id, { at, key: "start", event: { kind: "started", by } });
  });
  return yes(id);
}

export async function runView(id: string): Promise<RunView | null> {
  const { db } = await database();
  const run = await runRows.one(db, id);
  if (!run) return null;
  const log = await runRows.log(db, id);
  const state = foldRun(run.plan.steps, log);
  const at = now();
  return {
    id,
    buildId: run.buildId,
    plan: run.plan,
    log,
    state,
    hands: nextHands(run.plan.steps, state, at),
    now: at,
  };
}

/**
 * Carries out one command: decided by the core against the log as it stands, inside the transaction that appends it.
 * A key that is already in the log was a repeated message and changes nothing.
 */
export async function command(runId: string, key: string, body: unknown): Promise<Answer<RunView>> {
  const read = runCommandSchema.safeParse(body);
  if (!read.success)
    return no(
      `This command is not understood: ${read.error.issues[0]?.path.join(".")} ${read.error.issues[0]?.message}`,
    );
  return append(runId, key, (plan, state) => {
    const decided = decide(plan, state, read.data);
    return decided.ok ? yes(decided.value) : { ok: false, problems: decided.problems };
  });
}

async function append(
  runId: string,
  key: string,
  event: (plan: RunPlan, state: RunState) => Answer<RunEvent>,
): Promise<Answer<RunView>> {
  const { write } = await database();
  const refused = await write(async (tx): Promise<Answer<null>> => {
    const run = await runRows.one(tx, runId);
    if (!run) return no("This run is no longer there.");
    if (await runRows.hasKey(tx, runId, key)) return yes(null);
    const state = foldRun(run.plan.steps, await runRows.log(tx, runId));
    const decided = event(run.plan, state);
    if (!decided.ok) return decided;
    const at = now();
    await runRows.append(tx, runId, { at, key, event: decided.value });
    if (decided.value.kind === "as expected") await learnFrom(tx, run, state, at);
    if (decided.value.kind === "handed over") await runRows.end(tx, runId, at);
    return yes(null);
  });
  if (!refused.ok) return refused;
  const view = await runView(runId);
  return view ? yes(view) : no("This run is no longer there.");
}

/** A step that moved data has ended: its time is kept as a measurement, and a written stick says what it carries. */
async function learnFrom(tx: Tx, run: runRows.RunRow, state: RunState, at: string): Promise<void> {
  const learned = measuredTransfer(run.plan, state, at);
  if (!learned) return;
  await transferRows.put(tx, run.id, learned.step, learned.sample);
  const { way, through } = learned.sample;
  const stick = way === "stick" ? await driveRows.one(tx, through) : null;
  if (!stick) return;
  const { sheet, imageName } = run.plan;
  const { written } = sheet.image.stick;
  const entry = recordWriting(stick.entry, {
    imageId: sheet.image.id ?? "",
    name: imageName,
    written,
    scheme: written === "as the image" ? null : written === "legacy" ? "MBR" : "GPT",
    compared: true,
    at,
  });
  await driveRows.put(tx, stick.key, entry, stick.version + 1, at);
}

/** Compares texts read from the installed system with the plan, and changes nothing. */
export async function previewAcceptance(runId: string, texts: readonly NamedText[]) {
  const run = await runRows.one((await database()).db, runId);
  if (!run) return no("This run is no longer there.");
  const intake = readTexts(texts);
  const { facts } = mergeReadings(emptyMachine(), intake.readings, now()).document;
  return yes({
    lines: compareWithPlan(run.plan.expectations, facts),
    rejected: intake.rejected,
    understood: intake.readings.length,
  });
}

/** Puts an acceptance on the log. The lines are worked out here again from the texts. */
export async function accept(
  runId: string,
  key: string,
  texts: readonly NamedText[],
  by: string,
): Promise<Answer<RunView>> {
  const preview = await previewAcceptance(runId, texts);
  if (!preview.ok) return preview;
  if (preview.value.understood === 0)
    return no("Nothing in these texts could be read, so nothing was accepted.");
  const lines: AcceptanceLine[] = preview.value.lines;
  return append(runId, key, (_, state) =>
    state.status === "handed over"
      ? no("This run has been handed over.")
      : yes({
          kind: "accepted",
          from: texts
            .map((t) => t.name)
            .join(", ")
            .slice(0, 300),
          lines,
          by,
        }),
  );
}

export async function recordOf(runId: string): Promise<BuildRecord | null> {
  const view = await runView(runId);
  return view ? makeRecord(view.plan, view.log) : null;
}
