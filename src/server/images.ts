import { imageSchema, inspectionSchema, matchChecksum, parseChecksumList, type Checksum } from "@/core/image";
import { buildRows, imageRows } from "@/db";
import { no, STALE, yes, type Answer } from "./answer";
import { database, now } from "./database";
import { newId } from "./ids";
import { profileFor } from "./profiles";

export async function listImages() {
  const { db } = await database();
  const [images, builds] = await Promise.all([imageRows.all(db), buildRows.marks(db)]);
  return images.map((i) => ({ ...i, builds: builds.filter((b) => b.imageId === i.id) }));
}

export async function imageView(id: string) {
  const { db } = await database();
  const row = await imageRows.one(db, id);
  if (!row) return null;
  const [builds, profile] = await Promise.all([buildRows.marks(db), profileFor(db, row.image)]);
  return { ...row, profile, builds: builds.filter((b) => b.imageId === id) };
}

/** Adds an image (`id` null) or saves one. Problems name the field. */
export async function saveImage(
  id: string | null,
  version: number,
  fields: unknown,
): Promise<Answer<{ id: string; version: number }>> {
  const { db, write } = await database();
  const before = id ? (await imageRows.one(db, id))?.image : null;
  const read = imageSchema.safeParse({
    schemaVersion: 1,
    computed: before?.computed ?? null,
    inside: before?.inside ?? null,
    ...(fields as object),
  });
  if (!read.success)
    return {
      ok: false,
      problems: read.error.issues.map((i) => ({ message: `${i.path.join(".")}: ${i.message}` })),
    };
  if (id === null) {
    const made = newId("i");
    await write((tx) => imageRows.insert(tx, made, read.data, now()));
    return yes({ id: made, version: 1 });
  }
  const saved = await write((tx) => imageRows.update(tx, id, version, read.data, now()));
  return saved ? yes({ id, version: version + 1 }) : no(STALE);
}

/** Keeps what a checksum tool printed over the file; the comparison is made by the core, each time it is shown. */
export async function saveComputed(
  id: string,
  version: number,
  checksum: Checksum,
  by: string,
): Promise<Answer<number>> {
  const { db, write } = await database();
  const row = await imageRows.one(db, id);
  if (!row) return no("This image is no longer there.");
  const saved = await write((tx) =>
    imageRows.update(tx, id, version, { ...row.image, computed: { checksum, at: now(), by } }, now()),
  );
  return saved ? yes(version + 1) : no(STALE);
}

/** Keeps what was found inside a file. A size or mode that was typed differently stays, and becomes a finding. */
export async function saveInside(
  id: string,
  version: number,
  fileName: string,
  found: unknown,
  by: string,
): Promise<Answer<number>> {
  const { db, write } = await database();
  const row = await imageRows.one(db, id);
  if (!row) return no("This image is no longer there.");
  const read = inspectionSchema.safeParse(found);
  if (!read.success) return no("What the inspector sent is not complete; nothing was kept.");
  const inside = { found: read.data, fileName: fileName.slice(0, 300), at: now(), by };
  const saved = await write((tx) => imageRows.update(tx, id, version, { ...row.image, inside }, now()));
  return saved ? yes(version + 1) : no(STALE);
}

/** Takes the published checksum for this image out of a list: by file name, or by the value that was computed. */
export async function takeFromList(
  id: string,
  version: number,
  text: string,
  from: string,
): Promise<Answer<{ by: "name" | "value" | "alone"; algorithm: string; signed: boolean }>> {
  const { db, write } = await database();
  const row = await imageRows.one(db, id);
  if (!row) return no("This image is no longer there.");
  const list = parseChecksumList(text);
  if (!list.ok) return { ok: false, problems: list.problems };
  const name = row.image.fileName || row.image.inside?.fileName || "";
  const match = matchChecksum(list.value.entries, name, row.image.computed?.checksum ?? null);
  if (!match)
    return no(
      `None of the ${list.value.entries.length} lines names ${name || "this image, which has no file name yet"}. Names in the list: ${list.value.entries
        .slice(0, 6)
        .map((e) => e.name ?? "(no name)")
        .join(", ")}.`,
    );
  const image = {
    ...row.image,
    published: match.entry.checksum,
    publishedFrom: from || row.image.publishedFrom,
  };
  const saved = await write((tx) => imageRows.update(tx, id, version, image, now()));
  return saved
    ? yes({ by: match.by, algorithm: match.entry.checksum.algorithm, signed: list.value.signed })
    : no(STALE);
}
