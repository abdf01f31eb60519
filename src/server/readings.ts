import type { Answer } from "@/contract";
import {
  heat,
  judgeMachine,
  meanPower,
  runningOf,
  workPerWatt,
  yearlyCost,
  yearlyEnergy,
  type Verdict,
} from "@/core/energy";
import { IMPORTERS, emptyMachine, type NamedText } from "@/core/machine";
import {
  baselines,
  likenessOf,
  readingProblem,
  readingSchema,
  readingsOf,
  type LikeMachine,
  type Reading,
} from "@/core/readings";
import { machineRows, readingRows, siteRows } from "@/db";
import { no, yes } from "./answer";
import { circuitOf } from "./machines";
import type { Desk } from "./desk";
import { readInto } from "./intake";

/** How the bench of a machine is looked at; kept in the page's address, so that it can be sent and reloaded. */
export interface BenchQuestion {
  loadedShare: number;
  otherId: string | null;
  otherWatts: number | null;
  otherPrice: number | null;
  passThrough: boolean;
  memoryWantedBytes: number | null;
}

export async function benchView(desk: Desk, id: string, asked: BenchQuestion) {
  const { db } = desk;
  const machine = await machineRows.one(db, id);
  if (!machine) return null;
  const [site, own, listed] = await Promise.all([
    siteRows.ifSound(db, machine.siteId),
    readingRows.of(db, id),
    machineRows.listed(db),
  ]);
  const { facts } = machine.document;
  const all = await readingRows.byMachine(db);
  const kind = { model: facts.chassis?.model, processor: facts.processors?.model };
  const like = listed
    .filter((m) => m.id !== id && all.has(m.id))
    .flatMap((m): LikeMachine[] => {
      const likeness = likenessOf(kind, m.summary);
      return likeness ? [{ name: m.name, likeness, readings: all.get(m.id) ?? [] }] : [];
    });
  const other = otherOf(asked, listed, all);
  const tariff = site?.site.tariff ?? null;
  const running = runningOf(own, asked.loadedShare);
  const work = workPerWatt(own, facts.processors?.cores ?? null);
  const verdict: Verdict = judgeMachine({
    document: machine.document,
    readings: own,
    now: desk.now(),
    tariff,
    loadedShare: asked.loadedShare,
    other,
    wantsPassThrough: asked.passThrough,
    memoryWantedBytes: asked.memoryWantedBytes,
  });
  return {
    machine,
    site,
    readings: own,
    lines: baselines(own, like),
    like: like.map((l) => l.name),
    others: listed
      .filter((m) => m.id !== id && all.get(m.id)?.some((r) => r.kind === "power"))
      .map((m) => ({ id: m.id, name: m.name })),
    figures: running
      ? [
          meanPower(running),
          yearlyEnergy(running),
          ...(tariff ? [yearlyCost(running, tariff)] : []),
          heat(running),
          ...(work ? [work] : []),
        ]
      : [],
    verdict,
    circuit: await circuitOf(db, machine, site?.site ?? null),
  };
}

function otherOf(
  { otherId, otherWatts, otherPrice, loadedShare }: BenchQuestion,
  listed: readonly { id: string; name: string }[],
  readings: Map<string, Reading[]>,
) {
  const name = listed.find((m) => m.id === otherId)?.name;
  const running = otherId ? runningOf(readings.get(otherId) ?? [], loadedShare) : null;
  if (name && running) return { name, running, price: otherPrice };
  if (otherWatts === null) return null;
  const typed = {
    idleWatts: otherWatts,
    loadedWatts: otherWatts,
    loadedShare,
    idleSource: "typed" as const,
    loadedSource: "typed" as const,
  };
  return { name: "the other machine", running: typed, price: otherPrice };
}

/** A reading typed by a person; a number that cannot be right is refused with the range. */
export async function typeReading(
  desk: Desk,
  machineId: string,
  values: Pick<Reading, "kind" | "what" | "state" | "value" | "limit"> & Partial<Pick<Reading, "how">>,
): Promise<Answer<Reading>> {
  const { db, write } = desk;
  if (!(await machineRows.one(db, machineId))) return no("This machine no longer exists.");
  const reading = readingSchema.safeParse({ ...values, at: desk.now(), by: desk.actor, source: "typed" });
  if (!reading.success) return no(...reading.error.issues.map((i) => `${i.path.join(" ")}: ${i.message}`));
  const problem = readingProblem(reading.data);
  if (problem) return no(problem);
  await write((tx) => readingRows.add(tx, machineId, [reading.data]));
  return yes(reading.data);
}

/** Readings out of dropped outputs (sensors, smartctl, Redfish), taken in a stated condition; the facts stay as they are. */
export async function importReadings(
  desk: Desk,
  machineId: string,
  texts: NamedText[],
  state: Reading["state"],
): Promise<Answer<number>> {
  const { db, write } = desk;
  if (!(await machineRows.one(db, machineId))) return no("This machine no longer exists.");
  const at = desk.now();
  const read = await readInto(desk, emptyMachine(), texts, at);
  if (!read.ok) return read;
  const { intake } = read.value;
  const { facts } = read.value.document;
  const readings = readingsOf(
    facts,
    intake.takenAt && intake.takenAt < at ? intake.takenAt : at,
    desk.actor,
    state,
  );
  if (readings.length === 0) {
    const reason = intake.rejected[0]?.problems ?? [];
    return {
      ok: false,
      problems: [
        {
          message: `No temperature, fan or power values in these texts. Import the output of ${IMPORTERS.filter(
            (i) => ["sensors", "smartctl"].includes(i.tool),
          )
            .map((i) => i.command)
            .join(" or ")}.`,
        },
        ...reason,
      ],
    };
  }
  await write((tx) => readingRows.add(tx, machineId, readings));
  return yes(readings.length);
}
