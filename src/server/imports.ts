import type { Answer, ImportPreview } from "@/contract";
import {
  emptyMachine,
  mergeReadings,
  registerKey,
  sightDrive,
  type Intake,
  type MachineDocument,
  type NamedText,
} from "@/core/machine";
import { readingsOf } from "@/core/readings";
import { proposals } from "@/core/site";
import { driveRows, machineRows, readingRows, siteRows, type Stamp, type Tx } from "@/db";
import { no, STALE, yes } from "./answer";
import type { Desk } from "./desk";
import { readInto, readToShow } from "./intake";
import { createSite } from "./sites";

/** Reads texts against a machine (or, without one, as a new machine) and changes nothing. */
export async function previewImport(
  desk: Desk,
  machineId: string | null,
  texts: readonly NamedText[],
): Promise<Answer<ImportPreview>> {
  const { db } = desk;
  const machine = machineId ? await machineRows.one(db, machineId) : null;
  if (machineId && !machine) return no("This machine no longer exists.");
  const read = await readToShow(desk, machine?.document ?? emptyMachine(), texts, desk.now());
  if (!read.ok) return read;
  const { facts, hostName, ...shown } = read.value;
  const serial = facts.chassis?.serial;
  const sameSerial = (await machineRows.withSerial(db, serial ? [serial] : [])).filter(
    (m) => m.id !== machineId,
  );
  return yes({ ...shown, sameSerial, suggestedName: hostName ?? "", proposed: proposals(facts) });
}

/** What an import means beyond the machine's facts: the drive register, and readings of sensors. */
async function follow(
  tx: Tx,
  machine: { id: string; name: string; document: MachineDocument },
  intake: Intake,
  stamp: Stamp,
): Promise<void> {
  const { at, by } = stamp;
  await sightAll(tx, machine, stamp);
  const tools = new Set(intake.readings.map((r) => r.tool));
  if (!tools.has("sensors") && !tools.has("smartctl") && !tools.has("redfish")) return;
  // Only what this import read becomes a reading: an older value must not appear under a new time.
  const { facts, sources } = machine.document;
  const taken = intake.takenAt && intake.takenAt < at ? intake.takenAt : at;
  const fresh = (path: string): boolean => sources[path]?.at === taken;
  const now = {
    ...facts,
    sensors: facts.sensors.filter((s) => fresh(`sensors.${s.id}`)),
    drives: facts.drives.filter((d) => fresh(`drives.${d.id}.health`)),
  };
  await readingRows.add(tx, machine.id, readingsOf(now, taken, by, "not told"));
}

/** Writes into the drive register where each drive of a machine sits. */
export async function sightAll(
  tx: Tx,
  machine: { id: string; name: string; document: MachineDocument },
  stamp: Stamp,
): Promise<void> {
  const keyed = machine.document.facts.drives.flatMap((drive) => {
    const key = registerKey(drive);
    // A set that a controller shows as a drive is nothing that one could hold in the hand.
    return key === null || drive.presentedBy !== null ? [] : [{ key, drive }];
  });
  const known = new Map(
    (
      await driveRows.withKeys(
        tx,
        keyed.map((k) => k.key),
      )
    ).map((r) => [r.key, r]),
  );
  for (const { key, drive } of keyed) {
    const row = known.get(key);
    const entry = sightDrive(row?.entry ?? null, drive, machine, stamp.at);
    if (JSON.stringify(entry) !== JSON.stringify(row?.entry))
      await driveRows.put(tx, key, entry, row ?? null, stamp);
  }
}

/** Takes an import over: the machine's facts change, and the raw texts are kept. The version guards against a clash. */
export async function takeOver(
  desk: Desk,
  machineId: string,
  version: number,
  texts: NamedText[],
): Promise<Answer<number>> {
  const { db, write } = desk;
  const machine = await machineRows.one(db, machineId);
  if (!machine) return no("This machine no longer exists.");
  const at = desk.now();
  const read = await readInto(desk, machine.document, texts, at);
  if (!read.ok) return read;
  const { intake, document, changes } = read.value;
  if (intake.readings.length === 0) return no("No known output in these texts, so nothing was changed.");
  const saved = await write(async (tx) => {
    if (!(await machineRows.update(tx, { ...machine, version, document }, { at, by: desk.actor })))
      return false;
    await machineRows.addImport(tx, { id: desk.newId("t"), machineId, at, by: desk.actor, texts, changes });
    await follow(tx, { id: machineId, name: machine.name, document }, intake, { at, by: desk.actor });
    return true;
  });
  return saved ? yes(version + 1) : no(STALE);
}

export async function createMachine(
  desk: Desk,
  place: string | { newSite: string },
  name: string,
  texts: NamedText[],
): Promise<Answer<string>> {
  const { db, write } = desk;
  if (name.trim() === "") return no("Enter the machine name, as on its front.");
  if (typeof place === "string") {
    if (!(await siteRows.one(db, place))) return no("Choose the site of the machine.");
    if (await machineRows.nameIsTaken(db, place, name.trim()))
      return no(`This site already has a machine with the name ${name.trim()}.`);
  }
  const at = desk.now();
  const id = desk.newId("m");
  const read = await readInto(desk, emptyMachine(), texts, at);
  if (!read.ok) return read;
  const { document, changes, intake } = read.value;
  // Last, so that a machine that is refused leaves no site.
  const site = typeof place === "string" ? yes(place) : await createSite(desk, place.newSite, texts);
  if (!site.ok) return site;
  await write(async (tx) => {
    await machineRows.insert(tx, id, site.value, name.trim(), document, { at, by: desk.actor });
    if (intake.readings.length === 0) return;
    await machineRows.addImport(tx, {
      id: desk.newId("t"),
      machineId: id,
      at,
      by: desk.actor,
      texts,
      changes,
    });
    await follow(tx, { id, name: name.trim(), document }, intake, { at, by: desk.actor });
  });
  return yes(id);
}

/** What was read from the installed system becomes the machine's facts; a machine that is no longer there is passed over. */
export async function bringHome(
  desk: Desk,
  tx: Tx,
  machineId: string,
  texts: NamedText[],
  intake: Intake,
  at: string,
): Promise<void> {
  const machine = await machineRows.one(tx, machineId);
  if (!machine) return;
  const taken = intake.takenAt && intake.takenAt < at ? intake.takenAt : at;
  const { document, changes } = mergeReadings(machine.document, intake.readings, taken);
  await machineRows.update(tx, { ...machine, document }, { at, by: desk.actor });
  await machineRows.addImport(tx, { id: desk.newId("t"), machineId, at, by: desk.actor, texts, changes });
  await follow(tx, { id: machineId, name: machine.name, document }, intake, { at, by: desk.actor });
}
