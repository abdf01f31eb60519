import { createHash, randomBytes } from "node:crypto";
import { answerTo, armingState, waitsFor, type Arming, type Caller } from "@/core/netboot";
import { bootRows, machineRows, type Tx } from "@/db";
import type { Desk } from "../desk";
import { hear } from "../run-log";
import { othersArmed, serverRates } from "./board";

const [TOKEN_BYTES, KEPT_STRANGERS] = [24, 2000];
export const hashOf = (token: string): string => createHash("sha256").update(token).digest("hex");

/** What a machine that asks is given. */
export type Decision =
  | { kind: "installs"; arming: Arming; token: string }
  /** Its turn has not come: it asks again. */
  | { kind: "waits"; words: string }
  | { kind: "local"; words: string };

/**
 * Decides what a machine is given, and writes down that it asked, in one moment: of two that ask together for the last place,
 * one has it. Who only looks (`isAsked` false) changes nothing, and its token opens nothing.
 */
export const decideFor = (desk: Desk, caller: Caller, isAsked: boolean): Promise<Decision> =>
  desk.write(async (tx) => {
    const machine = await machineRows.byMac(tx, caller.mac);
    const row = machine ? await bootRows.ofMachine(tx, machine.id) : null;
    const decision = await decisionOf(desk, tx, caller, row);
    if (!isAsked) return decision;
    const [given, waits] = [decision.kind === "installs", decision.kind === "waits"];
    const words = decision.kind === "installs" ? "" : decision.words;
    const event = { kind: "asked" as const, caller, given, words, waits };
    // What a stranger asks belongs to no arming, and neither does a machine that was never armed.
    await bootRows.add(tx, row?.id ?? null, caller.mac, event, desk.stamp());
    if (!row) await bootRows.forgetStrangers(tx, KEPT_STRANGERS);
    else {
      if (decision.kind === "installs") await bootRows.setToken(tx, row.id, hashOf(decision.token));
      await hear(desk, tx, row.buildId);
    }
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
