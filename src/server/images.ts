import type { Answer } from "@/contract";
import {
  draftImage,
  imageSchema,
  inspectionSchema,
  matchChecksum,
  parseChecksumList,
  shelfMarks,
  supportEndOf,
  UNKNOWN,
  type Checksum,
  type Image,
} from "@/core/image";
import { isBag } from "@/core/document";
import { buildRows, imageRows, profileRows, siteRows, type Stamp, type Tx } from "@/db";
import { no, yes } from "./answer";
import { editionFor, newestProfiles, profileFor } from "./profiles";
import { dayEverywhere } from "@/core/site";
import type { Desk } from "./desk";

const GONE = "This image no longer exists.";

/** The shelf: each image with the sheets that use it and what is the matter with it. */
export async function listImages(desk: Desk) {
  const { db } = desk;
  const [images, sites, builds, editions] = await Promise.all([
    imageRows.all(db),
    siteRows.all(db),
    buildRows.marks(db),
    profileRows.all(db),
  ]);
  const usedBy = (id: string) => builds.filter((b) => b.imageId === id);
  const today = dayEverywhere(
    sites.map((s) => s.site),
    desk.now(),
  );
  const profileOf = (image: Image) => editionFor(editions, image, null)?.profile ?? null;
  const marks = shelfMarks(images, profileOf, today);
  return images.map((i) => ({
    ...i,
    ...{ builds: usedBy(i.id), marks: marks.get(i.id) ?? [] },
    supportEnd: supportEndOf(i.image, profileOf(i.image)),
  }));
}

/** One image with its profile, the sheets that use it, and what goes with it in either direction. */
export async function imageView(desk: Desk, id: string) {
  const shelf = await listImages(desk);
  const own = shelf.find((i) => i.id === id);
  if (!own) return null;
  const profile = await profileFor(desk.db, own.image);
  return {
    ...own,
    profile,
    others: shelf.filter((i) => i.id !== id).map(({ id: other, image }) => ({ id: other, image })),
    companions: shelf
      .filter((i) => own.image.goesWith.includes(i.id) || i.image.goesWith.includes(id))
      .map(({ id: other, image }) => ({ id: other, name: image.name, purpose: image.purpose })),
  };
}

/** Adds an image that was typed: what was published about it. Problems name the field. */
export async function createImage(desk: Desk, fields: unknown): Promise<Answer<string>> {
  const read = imageSchema.safeParse({
    ...(isBag(fields) ? fields : {}),
    ...{ schemaVersion: 1, computed: null, inside: null },
  });
  if (!read.success)
    return {
      ok: false,
      problems: read.error.issues.map((i) => ({ message: `${i.path.join(".")}: ${i.message}` })),
    };
  const id = desk.newId("i");
  await desk.write((tx) => imageRows.insert(tx, id, read.data, desk.stamp()));
  return yes(id);
}

/**
 * Puts a file on the shelf by what was found inside it. A file that is there already, by its name and size, is not added
 * again: its own entry gets what was found.
 */
export async function addFile(
  desk: Desk,
  fileName: string,
  found: unknown,
): Promise<Answer<{ id: string; known: boolean }>> {
  const { db, write } = desk;
  const read = inspectionSchema.safeParse(found);
  if (!read.success) return no("The result of the inspection is incomplete; nothing was saved.");
  const name = fileName.slice(0, 300);
  const inside: Image["inside"] = { found: read.data, fileName: name, at: desk.now(), by: desk.actor };
  const there = (await imageRows.all(db)).find(
    ({ image }) => image.fileName === name && image.sizeBytes === read.data.sizeBytes,
  );
  if (there) {
    const kept = await amend(desk, there.id, (image) => ({ ...image, inside }));
    return kept.ok ? yes({ id: there.id, known: true }) : kept;
  }
  const draft = draftImage(name, read.data, newestProfiles(await profileRows.all(db)));
  const image = imageSchema.safeParse({ schemaVersion: 1, ...draft, inside });
  if (!image.success)
    return no(`${name} cannot be added to the library: ${image.error.issues[0]?.message ?? "it is empty"}.`);
  const id = desk.newId("i");
  await write((tx) => imageRows.insert(tx, id, image.data, desk.stamp()));
  return yes({ id, known: false });
}

/** Changes one part of an image as it stands now; a form that is open on an older version is told when it is saved. */
function amend(desk: Desk, id: string, change: (image: Image) => Image): Promise<Answer<number>> {
  return desk.write((tx) => amendIn(tx, desk.stamp(), id, change));
}

async function amendIn(
  tx: Tx,
  stamp: Stamp,
  id: string,
  change: (image: Image) => Image,
): Promise<Answer<number>> {
  const row = await imageRows.one(tx, id);
  if (!row) return no(GONE);
  await imageRows.update(tx, id, row.version, change(row.image), stamp);
  return yes(row.version + 1);
}

/** Takes an image that was not recognised to be of a family; a version that nothing told becomes the family's. */
export async function takeFor(desk: Desk, id: string, family: string): Promise<Answer<number>> {
  const profile = newestProfiles(await profileRows.all(desk.db)).find((p) => p.profile === family);
  if (!profile) return no("This OS profile no longer exists.");
  return amend(desk, id, (image) => ({
    ...image,
    profile: family,
    version: image.version === UNKNOWN ? profile.version : image.version,
  }));
}

/** Keeps what a checksum tool printed over the file; the comparison is made by the core, each time it is shown. */
export const saveComputed = (desk: Desk, id: string, checksum: Checksum): Promise<Answer<number>> =>
  amend(desk, id, (image) => ({ ...image, computed: { checksum, at: desk.now(), by: desk.actor } }));

/** Keeps the digest that this server computed over a file of its own, in the write that ends the computation. */
export function keepComputed(tx: Tx, desk: Desk, id: string, checksum: Checksum): Promise<Answer<number>> {
  const at = desk.now();
  const by = `${desk.actor}, on the server`;
  return amendIn(tx, { at, by }, id, (image) => ({ ...image, computed: { checksum, at, by } }));
}

/** Keeps what was found inside a file. A size or mode that was typed differently stays, and becomes a finding. */
export async function saveInside(
  desk: Desk,
  id: string,
  fileName: string,
  found: unknown,
): Promise<Answer<number>> {
  const read = inspectionSchema.safeParse(found);
  if (!read.success) return no("The result of the inspection is incomplete; nothing was saved.");
  const inside = { found: read.data, fileName: fileName.slice(0, 300), at: desk.now(), by: desk.actor };
  return amend(desk, id, (image) => ({ ...image, inside }));
}

/** Takes the published checksum for this image out of a list: by file name, or by the value that was computed. */
export async function takeFromList(
  desk: Desk,
  id: string,
  text: string,
  from: string,
): Promise<Answer<{ by: "name" | "value" | "alone"; algorithm: string; signed: boolean }>> {
  const row = await imageRows.one(desk.db, id);
  if (!row) return no(GONE);
  const list = parseChecksumList(text);
  if (!list.ok) return { ok: false, problems: list.problems };
  const { openLine } = list.value;
  const open =
    openLine === null ? "" : ` Line ${openLine} has no end: the list may be truncated, so it was not used.`;
  const name = row.image.fileName || row.image.inside?.fileName || "";
  const match = matchChecksum(list.value.entries, name, row.image.computed?.checksum ?? null);
  if (!match)
    return no(
      `None of the ${list.value.entries.length} lines has the name ${name || "of this image (no file name yet)"}. Names in the list: ${list.value.entries
        .slice(0, 6)
        .map((e) => e.name ?? "(no name)")
        .join(", ")}.${open}`,
    );
  const kept = await amend(desk, id, (image) => ({
    ...image,
    published: match.entry.checksum,
    publishedFrom: from || image.publishedFrom,
  }));
  return kept.ok
    ? yes({ by: match.by, algorithm: match.entry.checksum.algorithm, signed: list.value.signed })
    : kept;
}
