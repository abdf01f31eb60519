import { createHash, randomBytes } from "node:crypto";
import { answerTo, armingState, waitsFor, type Arming, type BootEvent, type Caller } from "@/core/netboot";
import { bootRows, machineRows, type Tx } from "@/db";
import type { Desk } from "../desk";
import { hear } from "../run-log";
import { gathered } from "./gathered";
import { ALL_STRANGERS, othersArmed, serverRates } from "./board";

const TOKEN_BYTES = 24;
export const hashOf = (token: string): string => createHash("sha256").update(token).digest("hex");

/** What a machine that asks is given. */
export type Decision =
  | { kind: "installs"; arming: Arming; token: string }
  /** Its turn has not come: it asks again. */
  | { kind: "waits"; words: string }
  | { kind: "local"; words: string };

/** What strangers asked, each with the desk at which it was heard. */
const asked = gathered<{ desk: Desk; mac: string; at: string; event: BootEvent }>((all) =>
  all[0]!.desk.write((tx) =>
    bootRows.addStrangers(
      tx,
      all.map(({ mac, at, event }) => ({ mac, at, event })),
      ALL_STRANGERS,
    ),
  ),
);

/**
 * Decides what a machine is given, and writes down that it asked. Who only looks (`isAsked` false) changes nothing, and its
 * token opens nothing. A rack without armings that asks after a power cut is told so at once, and written down in a few writes.
 */
export async function decideFor(desk: Desk, caller: Caller, isAsked: boolean): Promise<Decision> {
  const machine = await machineRows.byMac(desk.db, caller.mac);
  if (machine && (await bootRows.ofMachine(desk.db, machine.id)))
    return decideArmed(desk, caller, machine.id, isAsked);
  const answer = answerTo(caller, null, null);
  const words = answer.given ? "" : answer.words;
  const event = { kind: "asked" as const, caller, given: false, words, waits: false };
  if (isAsked) await asked({ desk, mac: caller.mac, at: desk.now(), event });
  return { kind: "local", words };
}

/** In one moment with what is written down: of two that ask together for the last place, one has it. */
const decideArmed = (desk: Desk, caller: Caller, machineId: string, isAsked: boolean): Promise<Decision> =>
  desk.write(async (tx) => {
    const row = await bootRows.ofMachine(tx, machineId);
    const decision = await decisionOf(desk, tx, caller, row);
    if (!isAsked || !row) return decision;
    const [given, waits] = [decision.kind === "installs", decision.kind === "waits"];
    const words = decision.kind === "installs" ? "" : decision.words;
    const event = { kind: "asked" as const, caller, given, words, waits };
    await bootRows.add(tx, row.id, caller.mac, event, desk.stamp());
    if (decision.kind === "installs") await bootRows.setToken(tx, row.id, hashOf(decision.token));
    await hear(desk, tx, row.buildId);
    return decision;
  });

async function decisionOf(
  desk: Desk,
  tx: Tx,
  caller: Caller,
  row: bootRows.ArmingRow | null,
): Promise<Decision> {
  const arming = row?.arming ?? null;
  const state = row && arming ? armingState(arming, await bootRows.log(tx, row.id), desk.now()) : null;
  const answer = answerTo(caller, arming, state);
  if (!answer.given) return { kind: "local", words: answer.words };
  if (!row || !arming || !state) return { kind: "local", words: "" };
  const turn = waitsFor(serverRates(), { arming, state }, await othersArmed(tx, row.id, desk.now()));
  return turn === null
    ? { kind: "installs", arming, token: randomBytes(TOKEN_BYTES).toString("base64url") }
    : { kind: "waits", words: turn };
}
