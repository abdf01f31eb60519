import { exportSchema, parseExport, rebaseExport, type Export } from "@/core/record";
import { parseProfileYaml } from "@/core/image";
import {
  buildRows,
  compatRows,
  driveRows,
  imageRows,
  machineRows,
  pictureRows,
  profileRows,
  readingRows,
  runRows,
  siteRows,
  stepTimeRows,
  transferRows,
} from "@/db";
import { no, yes, type Answer } from "./answer";
import { database, now } from "./database";
import { sightAll } from "./imports";
import { addShippedProfiles } from "./profiles";

/** Everything that this installation keeps, as one file. Raw import texts and collector codes are left out. */
export async function exportAll(): Promise<Export> {
  const { db } = await database();
  const [
    sites,
    machines,
    images,
    profiles,
    builds,
    runs,
    drives,
    readings,
    notes,
    pictures,
    transfers,
    times,
  ] = await Promise.all([
    siteRows.all(db),
    machineRows.all(db),
    imageRows.all(db),
    profileRows.all(db),
    buildRows.all(db),
    runRows.all(db),
    driveRows.all(db),
    readingRows.byMachine(db),
    compatRows.all(db),
    pictureRows.all(db),
    transferRows.all(db),
    stepTimeRows.all(db),
  ]);
  return exportSchema.parse({
    format: "derrick-export",
    version: 1,
    exportedAt: now(),
    sites: sites.map((s) => ({ id: s.id, document: s.site })),
    machines: machines.map(({ id, siteId, name, document }) => ({ id, siteId, name, document })),
    profiles: profiles.map(({ key, version, edition, by, updatedAt, yaml }) => ({
      key,
      version,
      edition,
      by,
      at: updatedAt,
      yaml,
    })),
    transfers,
    times,
    images: images.map((i) => ({ id: i.id, document: i.image })),
    builds: await Promise.all(
      builds.map(async ({ id, number, sheet, revision }) => ({
        id,
        number,
        sheet,
        revision,
        history: await buildRows.history(db, id, 100_000),
      })),
    ),
    runs: await Promise.all(
      runs.map(async ({ id, buildId, plan }) => ({ id, buildId, plan, log: await runRows.log(db, id) })),
    ),
    drives: drives.map(({ key, entry }) => ({ key, entry })),
    readings: [...readings].flatMap(([machineId, rows]) => rows.map((reading) => ({ machineId, reading }))),
    compatNotes: notes.map(({ id, note }) => ({ id, note })),
    pictures: pictures.map(({ bytes, ...p }) => ({ ...p, base64: bytes.toString("base64") })),
  });
}

/** Reads an export into an empty installation; into one that holds anything it is refused, so nothing is overwritten. */
export async function importAll(
  text: string,
  options: { rebase: boolean },
): Promise<Answer<{ builds: number; machines: number }>> {
  const read = parseExport(text);
  if (!read.ok) return { ok: false, problems: read.problems };
  const file = options.rebase ? rebaseExport(read.value, now()) : read.value;
  const bad = file.profiles.find((p) => !parseProfileYaml(p.yaml).ok);
  if (bad) return no(`The profile ${bad.key} ${bad.version} in this file is not valid.`);
  const { db, write } = await database();
  const [sites, machines, builds] = await Promise.all([
    siteRows.all(db),
    machineRows.marks(db),
    buildRows.marks(db),
  ]);
  if (sites.length + machines.length + builds.length > 0)
    return no(
      "This installation already holds data. An export is read into an empty one: name a new database in DERRICK_DB_URL.",
    );
  const at = now();
  await write(async (tx) => {
    await profileRows.clear(tx);
    for (const { at: updatedAt = at, ...p } of file.profiles) {
      const profile = parseProfileYaml(p.yaml);
      await profileRows.add(tx, { ...p, name: profile.ok ? profile.value.name : p.key, updatedAt });
    }
    for (const s of file.sites) await siteRows.insert(tx, s.id, s.document, at);
    for (const m of file.machines) await machineRows.insert(tx, m.id, m.siteId, m.name, m.document, at);
    for (const d of file.drives) await driveRows.put(tx, d.key, d.entry, 1, at);
    // Files from before there was a register: it begins with what the machines hold now.
    if (file.drives.length === 0) for (const m of file.machines) await sightAll(tx, m, at);
    for (const m of file.machines)
      await readingRows.add(
        tx,
        m.id,
        file.readings.filter((r) => r.machineId === m.id).map((r) => r.reading),
      );
    for (const n of file.compatNotes) await compatRows.insert(tx, n.id, n.note, at);
    for (const { base64, ...p } of file.pictures)
      await pictureRows.insert(tx, { ...p, bytes: Buffer.from(base64, "base64") });
    for (const i of file.images) await imageRows.insert(tx, i.id, i.document, at);
    for (const b of file.builds) await buildRows.restore(tx, b, at);
    const open = new Set<string>();
    for (const r of file.runs.toReversed()) {
      const startedAt = r.log[0]?.at ?? at;
      const handedOver = r.log.findLast((l) => l.event.kind === "handed over")?.at ?? null;
      // Of two open runs of one build, which older installations could have, the newer goes on.
      const endedAt = handedOver ?? (open.has(r.buildId) ? startedAt : null);
      if (endedAt === null) open.add(r.buildId);
      await runRows.insert(tx, { id: r.id, buildId: r.buildId, startedAt, endedAt, plan: r.plan });
      for (const entry of r.log) await runRows.append(tx, r.id, entry);
    }
    for (const { runId, step, ...sample } of file.transfers) await transferRows.put(tx, runId, step, sample);
    for (const { runId, step, ...time } of file.times) await stepTimeRows.put(tx, runId, step, time);
  });
  await addShippedProfiles();
  return yes({ builds: file.builds.length, machines: file.machines.length });
}
