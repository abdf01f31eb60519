import type { ShelfImage } from "@/core/image";
import type { StickOnHand } from "@/core/media";
import { claimsAskedBy, type Sheet, type Sources } from "@/core/sheet";
import { rivalsAmong } from "@/core/claims";
import type { RateSample, StepTime } from "@/core/estimate";
import type { Site } from "@/core/site";
import {
  claimRows,
  compatRows,
  driveRows,
  imageRows,
  machineRows,
  profileRows,
  secretRows,
  siteRows,
  stepTimeRows,
  transferRows,
  type Db,
} from "@/db";
import { circuitsOf, drivePastsAmong, keysOfDrives } from "./machines";
import { editionFor, newestProfiles } from "./profiles";
import type { Desk } from "./desk";

/** A sheet that is to be judged; without an id it is not stored yet. */
export interface Judged {
  id: string | null;
  sheet: Sheet;
}

/** What the rules of every sheet look at beside its own machine. */
interface Surroundings {
  editions: profileRows.ProfileRow[];
  images: imageRows.ImageRow[];
  shelf: ShelfImage[];
  sticks: StickOnHand[];
  samples: RateSample[];
  times: StepTime[];
}

async function surroundings(db: Db): Promise<Surroundings> {
  const [editions, images, sticks, samples, times] = await Promise.all([
    profileRows.all(db),
    imageRows.all(db),
    driveRows.portable(db),
    transferRows.newest(db),
    stepTimeRows.newest(db),
  ]);
  return {
    ...{ editions, images, samples, times },
    shelf: images.map(({ id, image }) => ({ id, image })),
    sticks: sticks.map(({ key, entry }) => ({ key, entry })),
  };
}

const sitesOf = async (db: Db): Promise<Map<string, Site>> =>
  new Map((await siteRows.all(db)).map(({ id, site }) => [id, site]));

/**
 * Loads what the rules of some sheets look at, in as many queries as for one. A damaged machine or image is as one that
 * is gone; `sourcesOf` is for where it must not be passed over.
 */
export async function sourcesOfAll(desk: Desk, judged: readonly Judged[]): Promise<Sources[]> {
  const { db } = desk;
  const [around, machines, sites] = await Promise.all([
    surroundings(db),
    machineRows.some(
      db,
      judged.flatMap(({ sheet }) => sheet.machine.id ?? []),
    ),
    sitesOf(db),
  ]);
  const machineOf = new Map(machines.map((m) => [m.id, m]));
  const parts = judged.map((one) => {
    const machine = machineOf.get(one.sheet.machine.id ?? "") ?? null;
    return { ...one, machine, asked: claimsAskedBy(one.sheet, machine?.document ?? null) };
  });
  const [held, drives, circuits, notes, marks] = await Promise.all([
    claimRows.holders(
      db,
      parts.flatMap((p) => p.asked),
    ),
    driveRows.withKeys(db, machines.flatMap(keysOfDrives)),
    circuitsOf(db, machines, sites),
    compatRows.all(db),
    secretRows.sameMarks(
      db,
      judged.flatMap(({ id }) => id ?? []),
    ),
  ]);
  return parts.map(({ id, sheet, machine, asked }) => {
    const asking = { buildId: id, machineId: machine?.id ?? null, siteId: machine?.siteId ?? null };
    return {
      ...generalPart(desk, around, sheet, notes),
      machine: machine && { name: machine.name, document: machine.document },
      site: (machine && sites.get(machine.siteId)) ?? null,
      rivals: rivalsAmong(held, asked, asking),
      pasts: machine ? drivePastsAmong(drives, machine) : [],
      circuit: (machine && circuits.get(machine.id)) ?? null,
      secrets: marks.get(id ?? "") ?? [],
    };
  });
}

/** What follows from the image that a sheet chose, and what is the same for every sheet. */
function generalPart(
  desk: Desk,
  { editions, images, shelf, sticks, samples, times }: Surroundings,
  sheet: Sheet,
  notes: readonly compatRows.CompatRow[],
) {
  const image = images.find((i) => i.id === sheet.image.id)?.image ?? null;
  const edition = image && editionFor(editions, image, sheet.image.edition);
  const profile = edition?.profile ?? null;
  return {
    ...{ now: desk.now(), sheet, image, profile, shelf, sticks, samples, times },
    compat: notes.map((n) => n.note).filter((n) => n.profile === profile?.profile),
    profiles: newestProfiles(editions),
    edition: edition && { kept: edition.kept, newest: edition.newest },
  };
}

/** What the rules of one sheet look at. When its machine or image is damaged it throws, so that a person is told. */
export async function sourcesOf(desk: Desk, id: string | null, sheet: Sheet): Promise<Sources> {
  const [sources] = await sourcesOfAll(desk, [{ id, sheet }]);
  if (sheet.machine.id && !sources!.machine) await machineRows.one(desk.db, sheet.machine.id);
  if (sheet.image.id && !sources!.image) await imageRows.one(desk.db, sheet.image.id);
  return sources!;
}
