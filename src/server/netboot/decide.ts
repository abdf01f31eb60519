import { createHash, randomBytes } from "node:crypto";
import { answerTo, packedWords, UNARMED, waitsFor, type Arming, type Caller } from "@/core/netboot";
import { bootRows, machineRows, type Tx } from "@/db";
import type { Desk } from "../desk";
import { hear } from "../run-log";
import { gathered } from "./gathered";
import { standingIn } from "./standing";
import { ALL_STRANGERS, othersGiven, serverRates } from "./board";

const TOKEN_BYTES = 24;
export const hashOf = (token: string): string => createHash("sha256").update(token).digest("hex");

/** Who asks, with the code that was typed there, and whether it believes this server over HTTPS. */
interface Asker {
  caller: Caller;
  code: string;
  isSecure: boolean;
}

/** What one is told that asks over HTTPS for what would be read over it by an installer which believes no certificate. */
const NOT_PACKED =
  "Its installer cannot get its answers over HTTPS: boot this machine from the plain address.";

/** What a machine that asks is given. */
export type Decision =
  | { kind: "installs"; arming: Arming; row: bootRows.ArmingRow; token: string; isPacked: boolean }
  /** Its turn has not come: it asks again. */
  | { kind: "waits"; words: string }
  /** It is to show the code of its arming first. */
  | { kind: "asks code"; words: string; wrong: boolean }
  | { kind: "local"; words: string; second?: boolean };

interface Question {
  desk: Desk;
  caller: Caller;
  isAsked: boolean;
  at: string;
}

/**
 * Which of those that ask are machines with an arming, by their ids; what the others ask is written down. For all that came
 * meanwhile at once: a rack that nobody has armed asks all together after a power cut.
 */
const armedOf = gathered<Question, string | null>(async (all) => {
  const { db, write } = all[0]!.desk;
  const macs = [...new Set(all.map(({ caller }) => caller.mac))];
  const machines = await machineRows.byMacs(db, macs);
  const armed = await bootRows.everArmed(
    db,
    [...machines.values()].map(({ id }) => id),
  );
  const armedIds = all.map(({ caller }) => {
    const id = machines.get(caller.mac)?.id ?? null;
    return id !== null && armed.has(id) ? id : null;
  });
  const strangers = all.filter(({ isAsked }, i) => isAsked && armedIds[i] === null);
  const asked = strangers.map(({ caller, at }) => ({
    ...{ mac: caller.mac, at },
    event: {
      kind: "asked" as const,
      caller,
      given: false,
      words: UNARMED,
      waits: false,
      second: false,
      wrongCode: false,
    },
  }));
  if (asked.length > 0) await write((tx) => bootRows.addStrangers(tx, asked, ALL_STRANGERS));
  return armedIds;
});

/**
 * Decides what a machine is given, and writes down that it asked. Who only looks (`isAsked` false) changes nothing, and its
 * token opens nothing.
 */
export async function decideFor(desk: Desk, asker: Asker, isAsked: boolean): Promise<Decision> {
  const { caller } = asker;
  const machineId = await armedOf({ desk, caller, isAsked, at: desk.now() });
  return machineId === null
    ? { kind: "local", words: UNARMED }
    : decideArmed(desk, asker, machineId, isAsked);
}

/** In one moment with what is written down: of two that ask together for the last place, one has it. */
const decideArmed = (desk: Desk, asker: Asker, machineId: string, isAsked: boolean): Promise<Decision> =>
  desk.write(async (tx) => {
    const row = await bootRows.ofMachine(tx, machineId);
    const decision = await decisionOf(desk, tx, asker, row);
    const { caller } = asker;
    if (!isAsked) return decision;
    const [given, waits] = [decision.kind === "installs", decision.kind === "waits"];
    const words = decision.kind === "installs" ? "" : decision.words;
    const second = decision.kind === "local" && decision.second === true;
    const wrongCode = decision.kind === "asks code" && decision.wrong;
    const event = { kind: "asked" as const, caller, given, words, waits, second, wrongCode };
    // An arming that cannot be read arms nothing; what was asked is kept all the same.
    await bootRows.add(tx, [{ armingId: row?.id ?? null, mac: caller.mac, event, stamp: desk.stamp() }]);
    if (row && decision.kind === "installs") await bootRows.setToken(tx, row.id, hashOf(decision.token));
    if (row) await hear(desk, tx, row.buildId);
    return decision;
  });

async function decisionOf(
  desk: Desk,
  tx: Tx,
  { caller, code, isSecure }: Asker,
  row: bootRows.ArmingRow | null,
): Promise<Decision> {
  const arming = row?.arming ?? null;
  const state = row && arming ? await standingIn(tx, row, desk.now()) : null;
  const answer = answerTo(caller, code, arming, state);
  if ("asksCode" in answer) return { kind: "asks code", words: answer.words, wrong: answer.wrong };
  if (!answer.given) return { kind: "local", words: answer.words, second: answer.second };
  if (!row || !arming || !state) return { kind: "local", words: "" };
  if (isSecure && packedWords(arming.words) === null) return { kind: "local", words: NOT_PACKED };
  const turn = waitsFor(serverRates(), { arming, state }, await othersGiven(tx, row.id, desk.now()));
  return turn === null
    ? {
        kind: "installs",
        arming,
        row,
        token: randomBytes(TOKEN_BYTES).toString("base64url"),
        isPacked: isSecure,
      }
    : { kind: "waits", words: turn };
}
