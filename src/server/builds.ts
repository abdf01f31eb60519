import {
  adoptMachine,
  applyEdits,
  diffSheets,
  emptySheet,
  derive,
  evaluateSheet,
  invertEdits,
  nextRevision,
  roadLines,
  signedAnew,
  waysOf,
  type BuildView,
  type Edit,
  type MachineChoice,
  type Plan,
  type SaveAnswer,
  type Sheet,
} from "@/core/sheet";
import { valueAt } from "@/core/document";
import { consentTo, consentViews } from "@/core/storage";
import { formatBytes } from "@/core/units";
import { nextFreeAddress, segmentPlan } from "@/core/network";
import { waiverSchema } from "@/core/finding";
import { buildRows, imageRows, machineRows, profileRows, runRows, siteRows, type Db } from "@/db";
import { no, STALE, yes, type Answer } from "./answer";
import { sourcesOf } from "./sources";
import { database, now } from "./database";
import { newId } from "./ids";
import { keptJudgement } from "./marks";
import { editionFor } from "./profiles";
import { takenAddresses } from "./sites";

export type BuildRow = NonNullable<Awaited<ReturnType<typeof buildRows.one>>>;

/** The address plan of the segment that a sheet chose, with everything that stands in it. */
async function addressPlan(db: Db, { site, sheet }: Plan) {
  const segment = site?.segments.find((s) => s.id === sheet.network.segment);
  const here = segment && sheet.machine.id ? await machineRows.siteOf(db, sheet.machine.id) : null;
  return site && segment && here
    ? segmentPlan(segment, await takenAddresses(db, site, here, segment.prefix))
    : [];
}

/** The machines that a sheet can be for. */
export const machineChoices = async (): Promise<MachineChoice[]> =>
  machineRows.choices((await database()).db);

export async function buildView(id: string): Promise<BuildView | null> {
  const { db } = await database();
  const [build, run] = await Promise.all([buildRows.one(db, id), runRows.ofBuild(db, id)]);
  if (!build) return null;
  const { plan, evaluation } = keptJudgement(id, await sourcesOf(db, id, build.sheet));
  const { machine, site, image, profile, edition, shelf, sticks } = plan;
  const addresses = await addressPlan(db, plan);
  return {
    build,
    context: { machine, site, image, profile, edition },
    evaluation,
    roads: roadLines(plan),
    ways: waysOf(plan, evaluation.steps),
    consents: consentViews(plan),
    nextFree: nextFreeAddress(addresses),
    segmentPlan: addresses,
    run,
    choices: {
      images: shelf
        .filter(({ image }) => image.purpose === "installer")
        .map((i) => ({ id: i.id, name: i.image.name })),
      sticks: sticks.map(({ key, entry }) => ({
        key,
        name: `${entry.label || entry.model || key}, ${formatBytes(entry.sizeBytes)}`,
      })),
    },
  };
}

/** All sheets, the newest first, each with the name of its machine and its last run. */
export const listBuilds = async () => buildRows.listed((await database()).db);

/** A new sheet; with a machine it starts with the site's usual answers, and with every drive left alone. */
export async function createBuild(machineId: string | null): Promise<string> {
  const { db, write } = await database();
  const sheet = (machineId && (await forMachine(db, emptySheet(), machineId))) || emptySheet();
  const id = newId("b");
  await write(async (tx) => {
    await buildRows.insert(tx, { id, number: await buildRows.nextNumber(tx), sheet }, now());
  });
  return id;
}

/** The sheet for a machine of this id; null when there is none. */
async function forMachine(db: Db, sheet: Sheet, id: string): Promise<Sheet | null> {
  const machine = await machineRows.one(db, id);
  if (!machine) return null;
  return adoptMachine(sheet, machine, (await siteRows.ifSound(db, machine.siteId))?.site ?? null);
}

/** Choosing an image keeps the edition of its profile that is the newest now; a later one does not change the steps. */
async function withEdition(db: Db, sheet: Sheet): Promise<Sheet> {
  const row = sheet.image.id ? await imageRows.one(db, sheet.image.id) : null;
  const edition = row ? editionFor(await profileRows.all(db), row.image, null) : null;
  return { ...sheet, image: { ...sheet.image, edition: edition?.newest ?? null } };
}

const gone = (message: string): SaveAnswer => ({ ...no(message), stale: null });

/**
 * Saves edits that were made on `version`. A stale save changes nothing and returns what stands there now. What a person
 * signs (consents, waivers) has doors of its own: an edit can end it, and never make it.
 */
export async function saveEdits(id: string, version: number, edits: Edit[], by: string): Promise<SaveAnswer> {
  const { db } = await database();
  const build = await buildRows.one(db, id);
  if (!build) return gone("This build is no longer there.");
  if (build.version !== version) return staleAnswer(id);
  const applied = applyEdits(build.sheet, edits);
  if (!applied.ok) return { ok: false, problems: applied.problems, stale: null };
  const forged = signedAnew(build.sheet, applied.value);
  if (forged) return gone(forged);
  const chosen = edits.find((e) => e.path === "machine.id")?.after;
  const adopted = typeof chosen === "string" ? await forMachine(db, applied.value, chosen) : applied.value;
  if (!adopted) return gone("This machine is no longer there.");
  const next = edits.some((e) => e.path === "image.id") ? await withEdition(db, adopted) : adopted;
  return store(build, next, by);
}

/** Writes the next state of a sheet with all that changed, guarded by the version that it was made from. */
async function store(build: BuildRow, next: Sheet, by: string): Promise<SaveAnswer> {
  const { write } = await database();
  const { id, version } = build;
  const all = diffSheets(build.sheet, next);
  if (all.length > 0 && !(await write((tx) => buildRows.save(tx, id, version, next, all, by, now()))))
    return staleAnswer(id);
  const view = await buildView(id);
  return view ? { ok: true, view } : gone("This build is no longer there.");
}

async function staleAnswer(id: string): Promise<SaveAnswer> {
  const { db } = await database();
  const [view, [last]] = await Promise.all([buildView(id), buildRows.history(db, id, 1)]);
  return {
    ...no(STALE),
    stale: view ? { view, by: last?.by ?? "somebody", at: last?.at ?? view.build.updatedAt } : null,
  };
}

export const buildHistory = async (id: string) => buildRows.history((await database()).db, id);

/**
 * Takes back one save of the history with everything that it brought along, and nothing beside. Fields that were changed
 * again since then are left, and named.
 */
export async function undoSave(id: string, target: number, by: string): Promise<SaveAnswer> {
  const { db } = await database();
  const build = await buildRows.one(db, id);
  const entry = (await buildRows.history(db, id)).find((h) => h.version === target);
  if (!build || !entry) return gone("This change is not in the history.");
  const stands = (e: Edit): boolean =>
    JSON.stringify(valueAt(build.sheet, e.path) ?? null) === JSON.stringify(e.after ?? null);
  const changedSince = entry.edits.filter((e) => !stands(e)).map((e) => e.path);
  if (changedSince.length > 0)
    return gone(`Changed again since then, so nothing was taken back: ${changedSince.join(", ")}.`);
  const applied = applyEdits(build.sheet, invertEdits(entry.edits));
  return applied.ok
    ? store(build, applied.value, by)
    : { ok: false, problems: applied.problems, stale: null };
}

/** Issues the next letter for the sheet as it stands. Stops do not prevent it: a revision may be issued for discussion. */
export async function issueRevision(id: string, version: number, by: string): Promise<Answer<string>> {
  const { db, write } = await database();
  const build = await buildRows.one(db, id);
  if (!build) return no("This build is no longer there.");
  if (build.revision !== null && build.revisionVersion === build.version)
    return no(`Nothing has changed since revision ${build.revision}.`);
  const letter = nextRevision(build.revision);
  return (await write((tx) => buildRows.issue(tx, id, version, letter, by, now()))) ? yes(letter) : no(STALE);
}

/** Sets a finding aside with a reason. One that protects data, or is not there any more, is refused. */
export async function waive(
  id: string,
  version: number,
  key: string,
  reason: string,
  by: string,
): Promise<SaveAnswer> {
  const read = await planAt(id, version);
  if ("answer" in read) return read.answer;
  const { build, plan } = read;
  const finding = evaluateSheet(plan).findings.find((f) => f.key === key);
  if (!finding) return gone("This finding is no longer there.");
  if (!finding.waivable)
    return gone("This stop protects data and cannot be set aside. Change what it is about instead.");
  const waiver = waiverSchema.safeParse({ key, reason, by, at: now(), basis: finding.basis });
  if (!waiver.success) return gone(waiver.error.issues[0]?.message ?? "The reason is missing.");
  const others = build.sheet.waivers.filter((w) => w.key !== key);
  return store(build, { ...build.sheet, waivers: [...others, waiver.data] }, by);
}

/** A person agrees that a drive of the target is erased, by typing what names it; who and when is stamped here. */
export async function agreeToErase(
  id: string,
  version: number,
  driveId: string,
  typed: string,
  by: string,
): Promise<SaveAnswer> {
  const read = await planAt(id, version);
  if ("answer" in read) return read.answer;
  const consent = consentTo(read.plan, driveId, typed, by, now());
  if (!consent.ok) return { ok: false, problems: consent.problems, stale: null };
  const { sheet } = read.build;
  const erase = [...sheet.storage.erase.filter((c) => c.drive !== driveId), consent.value];
  return store(read.build, { ...sheet, storage: { ...sheet.storage, erase } }, by);
}

async function planAt(
  id: string,
  version: number,
): Promise<{ build: BuildRow; plan: Plan } | { answer: SaveAnswer }> {
  const { db } = await database();
  const build = await buildRows.one(db, id);
  if (!build) return { answer: gone("This build is no longer there.") };
  if (build.version !== version) return { answer: await staleAnswer(id) };
  return { build, plan: derive(await sourcesOf(db, id, build.sheet)) };
}
