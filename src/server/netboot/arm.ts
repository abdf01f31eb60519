import { buildBasis } from "@/core/procedure";
import { randomInt } from "node:crypto";
import type { Answer } from "@/contract";
import { armingState, isClosed, newCode, plain, type Arming, type ArmingState } from "@/core/netboot";
import { addSeconds } from "@/core/units";
import { bootRows, runRows, type Db, type Tx } from "@/db";
import { no, yes } from "../answer";
import type { Desk } from "../desk";
import { hear } from "../run-log";
import { startRun } from "../runs";
import { armingOffer, type ArmingOffer } from "./offer";

const [SHORTEST_MINUTES, LONGEST_MINUTES] = [5, 24 * 60];

/** The run in which an installation is written down: the open one of the sheet, or one that is started for it. */
async function runFor(desk: Desk, { build }: ArmingOffer["arming"]): Promise<Answer<string>> {
  const open = await runRows.openOf(desk.db, build.id);
  return open === null ? startRun(desk, build.id, build.version) : yes(open);
}

/** A run that was started before the sheet was revised says what is installed instead of what it was started for. */
async function noteRevision(desk: Desk, tx: Tx, runId: string, id: string, arming: Arming): Promise<void> {
  const run = await runRows.one(tx, runId);
  const { revision } = arming.build;
  const begun = run && buildBasis(run.plan)?.revision;
  if (begun === null || begun === undefined || begun === revision) return;
  const text = `Armed with revision ${revision} of the sheet, while this run uses revision ${begun}.`;
  const event = { kind: "note" as const, step: null, text, by: desk.actor };
  await runRows.append(tx, runId, { at: arming.at, key: `boot ${id} revision`, event });
}

/** How a machine is armed: what was typed, for how long it may ask, and whether it has to show a code. */
export interface Asked {
  typed: string;
  minutes: number;
  asksCode: boolean;
}

/** Arms one machine for one installation, by the tail of its serial as it was typed, for so many minutes. */
export async function armMachine(
  desk: Desk,
  buildId: string,
  { typed, minutes, asksCode }: Asked,
): Promise<Answer<{ id: string }>> {
  const offer = await armingOffer(desk, buildId);
  if (!offer.ok) return offer;
  const { arming, tail } = offer.value;
  if (!(minutes >= SHORTEST_MINUTES && minutes <= LONGEST_MINUTES))
    return no(`The time must be ${SHORTEST_MINUTES} minutes to ${LONGEST_MINUTES / 60} hours.`);
  const answer = plain(typed);
  if (answer.length < tail || !plain(arming.machine.serial).endsWith(answer))
    return no(
      `The serial number of ${arming.machine.name} does not end with these characters. Nothing was armed. Read the number on the machine itself.`,
    );
  // Before a run is started for it; and once more where it is written, since two people may arm one machine in the same moment.
  const standing = await armedNow(desk.db, arming.machine.id, desk.now());
  if (standing !== null) return armedAlready(arming, standing);
  const started = await runFor(desk, arming);
  if (!started.ok) return started;
  // Not before the run has begun: it hears only of what was armed in its own time.
  const at = desk.now();
  const id = desk.newId("a");
  const code = asksCode ? newCode(randomInt) : "";
  const whole: Arming = { ...arming, code, by: desk.actor, at, until: addSeconds(at, minutes * 60) };
  const already = await desk.write(async (tx) => {
    const other = await armedNow(tx, arming.machine.id, at);
    if (other !== null) return other;
    await bootRows.insert(tx, { id, machineId: arming.machine.id, buildId, arming: whole }, desk.stamp());
    await noteRevision(desk, tx, started.value, id, whole);
    await hear(desk, tx, buildId);
    return null;
  });
  return already === null ? yes({ id }) : armedAlready(arming, already);
}

const armedAlready = ({ machine }: ArmingOffer["arming"], status: string): Answer<never> =>
  no(`${machine.name} is already armed (${status}). Cancel that first.`);

/** How far the arming of a machine is that still gives something; null where there is none. */
async function armedNow(db: Db | Tx, machineId: string, at: string): Promise<ArmingState["status"] | null> {
  const before = await bootRows.ofMachine(db, machineId);
  const state = before && armingState(before.arming, await bootRows.log(db, before.id), at);
  return state && !isClosed(state) ? state.status : null;
}

/** Calls an arming off: from now on the machine starts from its own disk, and its token opens nothing. */
export async function disarm(desk: Desk, id: string): Promise<Answer<null>> {
  const row = await bootRows.one(desk.db, id);
  if (!row) return no("This arming does not exist.");
  const state = armingState(row.arming, await bootRows.log(desk.db, id), desk.now());
  if (isClosed(state)) return no(`It has already ended (${state.status}).`);
  await desk.write(async (tx) => {
    await bootRows.add(tx, [
      { armingId: id, mac: "", event: { kind: "cancelled", by: desk.actor }, stamp: desk.stamp() },
    ]);
    await hear(desk, tx, row.buildId);
  });
  return yes(null);
}
