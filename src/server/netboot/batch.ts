import type { BatchResult, Turns } from "@/contract";
import { armingState, atOnceFigure, isClosed } from "@/core/netboot";
import { bootRows, buildRows, siteRows } from "@/db";
import type { Desk } from "../desk";
import { armMachine, type Asked } from "./arm";
import { bootBoard, serverRates } from "./board";
import { armingOffer, type ArmingOffer } from "./offer";

/** A sheet whose machine can be armed, or what stands in the way of it. */
export interface BatchRow {
  build: string;
  number: string;
  machine: string;
  offer: ArmingOffer | null;
  problems: string[];
}

/** Machines that install themselves from this service and are not armed now, each with what it loses. */
export async function batchOffers(desk: Desk): Promise<BatchRow[]> {
  const sites = new Set(
    (await siteRows.all(desk.db)).filter((s) => s.site.networkBoot === "on").map((s) => s.id),
  );
  const rows: BatchRow[] = [];
  for (const { id, number, machine, siteId } of await buildRows.byNetwork(desk.db)) {
    if (!sites.has(siteId) || (await isArmed(desk, id))) continue;
    const offer = await armingOffer(desk, id);
    rows.push({
      ...{ build: id, number, machine, offer: offer.ok ? offer.value : null },
      problems: offer.ok ? [] : offer.problems.map((p) => p.message),
    });
  }
  return rows;
}

/** For how long a batch has to be armed, so that its last machine has its turn in time; null where none is ready. */
export async function turnsOf(desk: Desk, rows: readonly BatchRow[]): Promise<Turns | null> {
  const arming = rows.find(({ offer }) => offer !== null)?.offer?.arming;
  return arming
    ? {
        atOnce: atOnceFigure(serverRates(), arming).value,
        eachSeconds: arming.likelySeconds,
        open: (await bootBoard(desk)).rows.filter(({ state }) => !isClosed(state)).length,
      }
    : null;
}

async function isArmed({ db, now }: Desk, buildId: string): Promise<boolean> {
  const row = await bootRows.ofBuild(db, buildId);
  return row !== null && !isClosed(armingState(row.arming, await bootRows.log(db, row.id), now()));
}

/** Arms several machines for the same time, each by the end of its own serial; what is wrong with one leaves the others alone. */
export async function armBatch(
  desk: Desk,
  asked: readonly { build: string; typed: string }[],
  { minutes, asksCode }: Pick<Asked, "minutes" | "asksCode">,
): Promise<BatchResult[]> {
  const results: BatchResult[] = [];
  for (const { build, typed } of asked) {
    const answer = await armMachine(desk, build, { typed, minutes, asksCode });
    results.push({
      ...{ build, armed: answer.ok },
      words: answer.ok ? "armed" : answer.problems.map((p) => p.message).join(" "),
    });
  }
  return results;
}
