import type { Procedure } from "@/core/procedure";
import type { Answer } from "@/contract";
import { heardAt } from "@/core/netboot";
import {
  decide,
  deedsOf,
  foldRun,
  givenBefore,
  happened,
  measuredStep,
  measuredTransfer,
  type RunEvent,
  type RunState,
} from "@/core/run";
import { secondsBetween } from "@/core/units";
import { reportThatEnds } from "@/core/work";
import { standingIn } from "./netboot/standing";
import { bootRows, runRows, stepTimeRows, transferRows, type Tx } from "@/db";
import { no, yes } from "./answer";
import { writeDown } from "./deeds";
import type { Desk } from "./desk";
import { destroySecrets } from "./seals";

type Wanted = (plan: Procedure, state: RunState) => Answer<RunEvent>;
type Follow = (tx: Tx, run: runRows.RunRow, state: RunState, at: string) => Promise<void>;

/** Adds an event to the log of a run, with all that follows from it. A key that is there already was told before, and changes nothing. */
export async function append(
  desk: Desk,
  runId: string,
  { key, ageSeconds }: { key: string; ageSeconds?: number },
  event: Wanted,
  follow?: Follow,
): Promise<Answer<null>> {
  // Before it waits its turn to be written, which is no part of its age.
  const given = givenBefore(desk.now(), ageSeconds) ?? undefined;
  return desk.write((tx) => appendIn(desk, tx, runId, { key, given }, event, follow));
}

async function appendIn(
  desk: Desk,
  tx: Tx,
  runId: string,
  told: { key: string; given?: string | undefined; took?: number | null; isHeard?: boolean },
  event: Wanted,
  follow?: Follow,
): Promise<Answer<null>> {
  const { key, given, took, isHeard = false } = told;
  const run = await runRows.one(tx, runId);
  if (!run) return no("This run no longer exists.");
  if (await runRows.hasKey(tx, runId, key)) return yes(null);
  const log = await runRows.log(tx, runId);
  const state = foldRun(run.plan.steps, log);
  const decided = event(run.plan, state);
  if (!decided.ok) return decided;
  const arrived = desk.now();
  const entry = { at: arrived, given, key, event: decided.value };
  const seq = await runRows.append(tx, runId, entry);
  const at = happened([...log, { ...entry, seq }]).at(-1)!;
  if (decided.value.kind === "as expected" && took !== null) await learnFrom(tx, run, state, at, took);
  for (const deed of deedsOf(run.plan, state, decided.value))
    await writeDown(tx, deed, { at, by: decided.value.by, run: run.plan.number });
  await follow?.(tx, run, foldRun(run.plan.steps, await runRows.log(tx, runId)), at);
  if (decided.value.kind === "handed over") await closeRun(tx, run, at, decided.value.by);
  // Looked at only where a machine may have gone on already: each look is a way to the database and back.
  if (!isHeard && run.plan.steps.some(reportThatEnds)) await hear(desk, tx, run.buildId);
  return yes(null);
}

/** Under whose name steps end that a machine ended by what it asked for or told. */
const SERVICE = "boot service";

/**
 * Ends the steps of the open run of a build that its machine has ended by itself, as far as the run stands at them, each at the
 * time when it was heard; a machine that tells of a failure stops the run. Each is done once for one arming: who goes back in
 * the run stays there.
 */
export async function hear(desk: Desk, tx: Tx, buildId: string): Promise<void> {
  const runId = await runRows.openOf(tx, buildId);
  const row = runId === null ? null : await bootRows.ofBuild(tx, buildId);
  const run = runId === null ? null : await runRows.one(tx, runId);
  if (!runId || !row || !run || row.arming.at < run.startedAt) return;
  const now = desk.now();
  const heard = await standingIn(tx, row, now);
  for (;;) {
    const state = foldRun(run.plan.steps, await runRows.log(tx, runId));
    const step = run.plan.steps[state.current];
    const report = step && reportThatEnds(step);
    if (state.status !== "running" || !report) return;
    const found = heardAt(row.arming, heard, report);
    if (!found) return;
    const key = `boot ${row.id} ${found.stops === null ? step.id : "stops"}`;
    if (await runRows.hasKey(tx, runId, key)) return;
    const given = givenBefore(now, Math.max(0, secondsBetween(found.at, now))) ?? undefined;
    const { took } = found;
    const done = await appendIn(desk, tx, runId, { key, given, took, isHeard: true }, (plan, before) => {
      const command =
        found.stops === null
          ? ({ kind: "as expected", step: step.id } as const)
          : ({ kind: "differs", step: step.id, seen: found.stops, decision: "stop" } as const);
      return decide(plan, before, command, SERVICE, true);
    });
    if (!done.ok) return;
  }
}

/** The run is over, and what was sealed for it is destroyed. */
async function closeRun(tx: Tx, { id, buildId }: runRows.RunRow, at: string, by: string): Promise<void> {
  await runRows.end(tx, id, at);
  const text = await destroySecrets(tx, buildId, { at, by });
  if (text === null) return;
  const event: RunEvent = { kind: "note", step: null, text, by };
  await runRows.append(tx, id, { at, key: "secrets destroyed", event });
}

/** A step that moved data, or a wait, has ended: its time is kept as a measurement. */
async function learnFrom(
  tx: Tx,
  run: runRows.RunRow,
  state: RunState,
  at: string,
  took?: number,
): Promise<void> {
  const learned = measuredTransfer(run.plan, state, at, took);
  if (learned) await transferRows.put(tx, run.id, learned.step, learned.sample);
  const waited = measuredStep(run.plan, state, at, took);
  if (waited) await stepTimeRows.put(tx, run.id, waited.step, waited.time);
}
