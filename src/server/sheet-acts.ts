import { xxhash64 } from "hash-wasm";
import {
  applyEdits,
  chosenIn,
  decideSheet,
  derive,
  judgedIn,
  verdictText,
  type ActGround,
} from "@/core/sheet";
import type { Confirmed, Edit, SaveAnswer, SheetAct } from "@/core/sheet";
import { buildRows, imageRows, machineRows, profileRows, siteRows } from "@/db";
import { no, STALE } from "./answer";
import { buildView, type BuildRow } from "./builds";
import type { Desk } from "./desk";
import { takeFor } from "./images";
import { editionFor } from "./profiles";
import { sourcesOf } from "./sources";

const gone = (message: string): SaveAnswer => ({ ...no(message), stale: null });

/** Looks up what an act chooses. */
async function groundOf({ db, actor, now }: Desk, act: SheetAct): Promise<ActGround> {
  const { machine: machineId, image: imageId } = chosenIn(act.act === "edit" ? act.edits : []);
  const [machine, image] = await Promise.all([
    machineId === null ? null : machineRows.one(db, machineId),
    imageId === null ? null : imageRows.one(db, imageId),
  ]);
  const site = machine ? ((await siteRows.ifSound(db, machine.siteId))?.site ?? null) : null;
  const edition = image ? editionFor(await profileRows.all(db), image.image, null) : null;
  return {
    ...{ by: actor, at: now() },
    chosen: machine ? { machine, site } : null,
    hasImage: image !== null,
    newestEdition: edition?.newest ?? null,
    profile: edition?.profile ?? null,
  };
}

/**
 * One act on the sheet as it was at `version`: decided by the core, written with all that changed. A stale one changes
 * nothing and returns what stands there now.
 */
async function actOn(desk: Desk, id: string, version: number | null, act: SheetAct): Promise<SaveAnswer> {
  const build = await buildRows.one(desk.db, id);
  if (!build) return gone("This build no longer exists.");
  if (version !== null && build.version !== version) return staleAnswer(desk, id);
  const plan = derive(await sourcesOf(desk, id, build.sheet));
  const decided = decideSheet(plan, act, await groundOf(desk, act));
  return decided.ok
    ? store(desk, build, decided.value)
    : { ok: false, problems: decided.problems, stale: null };
}

/** Writes what has changed, guarded by the version that it was decided on. */
async function store(desk: Desk, build: BuildRow, edits: Edit[]): Promise<SaveAnswer> {
  const { id, version, sheet } = build;
  const next = applyEdits(sheet, edits);
  if (!next.ok) return { ok: false, problems: next.problems, stale: null };
  const save = () => desk.write((tx) => buildRows.save(tx, id, version, next.value, edits, desk.stamp()));
  if (edits.length > 0 && !(await save())) return staleAnswer(desk, id);
  return reread(desk, id);
}

async function staleAnswer(desk: Desk, id: string): Promise<SaveAnswer> {
  const [view, [last]] = await Promise.all([buildView(desk, id), buildRows.history(desk.db, id, 1)]);
  return {
    ...no(STALE),
    stale: view ? { view, by: last?.by ?? "somebody", at: last?.at ?? view.build.updatedAt } : null,
  };
}

/** The sheet as it stands now, for a page that was told of changes. */
export async function reread(desk: Desk, id: string): Promise<SaveAnswer> {
  const view = await buildView(desk, id);
  return view ? { ok: true, view } : gone("This build no longer exists.");
}

/** Saves edits that were made on `version`, with what follows from them. */
export const saveEdits = (desk: Desk, id: string, version: number, edits: Edit[]): Promise<SaveAnswer> =>
  actOn(desk, id, version, { act: "edit", edits });

/** Takes the image of a sheet to be of a family, with what follows on the sheet from an image that is known. */
export async function likeFamily(desk: Desk, id: string, family: string): Promise<SaveAnswer> {
  const image = (await buildRows.one(desk.db, id))?.sheet.image.id;
  if (!image) return gone("This sheet has no image.");
  const taken = await takeFor(desk, image, family);
  if (!taken.ok) return { ...taken, stale: null };
  return actOn(desk, id, null, {
    act: "edit",
    edits: [{ path: "image.id", before: image, after: image }],
  });
}

/**
 * Saves edits for a page that has judged them itself: where the server comes to the same verdict (of the sheet and all
 * that follows from it), the page is only told so.
 */
export async function saveJudged(
  desk: Desk,
  id: string,
  version: number,
  edits: Edit[],
  verdict: string | null,
): Promise<SaveAnswer | { ok: true; confirmed: Confirmed }> {
  const answer = await saveEdits(desk, id, version, edits);
  if (!answer.ok || verdict === null) return answer;
  const { build, nextFree, nextName, segmentPlan } = answer.view;
  const { sheet, ...rest } = build;
  const own = await xxhash64(verdictText(sheet, judgedIn(answer.view)));
  return own === verdict ? { ok: true, confirmed: { build: rest, nextFree, nextName, segmentPlan } } : answer;
}

/** Sets a finding aside with a reason. One that protects data, or is not there any more, is refused. */
export const waive = (
  desk: Desk,
  id: string,
  version: number,
  key: string,
  reason: string,
): Promise<SaveAnswer> => actOn(desk, id, version, { act: "set aside", key, reason });

/** A person agrees that a drive of the target is erased, by typing what names it. */
export const agreeToErase = (
  desk: Desk,
  id: string,
  version: number,
  drive: string,
  typed: string,
): Promise<SaveAnswer> => actOn(desk, id, version, { act: "agree to erase", drive, typed });

/** Takes back one save of the history with everything that it brought along, and nothing beside. */
export async function undoSave(desk: Desk, id: string, target: number): Promise<SaveAnswer> {
  const entry = (await buildRows.history(desk.db, id)).find((h) => h.version === target);
  return entry
    ? actOn(desk, id, null, { act: "take back", edits: entry.edits })
    : gone("This change is not in the history.");
}
