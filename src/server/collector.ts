import { createHash } from "node:crypto";
import type { Answer } from "@/contract";
import { MAX_TEXT_CHARACTERS, renderBsdCollector, renderCollector } from "@/core/machine";
import { machineRows } from "@/db";
import { no, yes } from "./answer";
import { readEnvironment } from "./environment";
import { newCode } from "./ids";
import type { Desk } from "./desk";

const CODE_MINUTES = 60;
const hashOf = (code: string): string =>
  createHash("sha256")
    .update(code.toLowerCase().replace(/[^0-9a-z]/g, ""))
    .digest("hex");

/** A one-time code that names the machine, good for an hour. The code itself is shown once and not kept. */
export async function issueCode(
  desk: Desk,
  machineId: string,
): Promise<Answer<{ code: string; command: string; minutes: number }>> {
  const { db, write } = desk;
  if (!(await machineRows.one(db, machineId))) return no("This machine no longer exists.");
  const code = newCode();
  const expiresAt = new Date(Date.now() + CODE_MINUTES * 60_000).toISOString();
  await write((tx) => machineRows.addCode(tx, { hash: hashOf(code), machineId, expiresAt }));
  const { DERRICK_ORIGIN: origin } = readEnvironment();
  // Code and origin hold nothing that a shell reads otherwise; the environment refuses an origin that does.
  return yes({ code, command: `curl -s '${origin}/collect.sh?code=${code}' | sh`, minutes: CODE_MINUTES });
}

/** The collector script for one family of systems; with a code it posts its bundle back, without one it prints it. */
export function collectorScript(code: string | null, family: "linux" | "bsd"): string {
  const { DERRICK_ORIGIN: origin } = readEnvironment();
  const clean = code?.replace(/[^0-9a-zA-Z-]/g, "");
  const render = family === "bsd" ? renderBsdCollector : renderCollector;
  return render({ postUrl: clean ? `${origin}/api/collect/${clean}` : null });
}

/** Takes a posted bundle once. It waits on the machine's sheet until a person has looked at it. */
export async function receiveBundle(desk: Desk, code: string, text: string): Promise<Answer<string>> {
  if (text.length > MAX_TEXT_CHARACTERS) return no(`too large: the limit is ${MAX_TEXT_CHARACTERS / 1e6} MB`);
  const machineId = await desk.write((tx) => machineRows.redeemCode(tx, hashOf(code), desk.now(), text));
  return machineId
    ? yes(machineId)
    : no(
        "this code is unknown, already used, or older than an hour; create a new one on the page of the machine",
      );
}

/** A waiting bundle was taken over or is not wanted. */
export async function dropWaiting(desk: Desk, hash: string): Promise<void> {
  await desk.write((tx) => machineRows.dropBundle(tx, hash));
}
