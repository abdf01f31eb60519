import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import {
  imageSchema,
  inspectionSchema,
  matchChecksum,
  parseChecksumList,
  parseProfileYaml,
  type Checksum,
  type Image,
  type Profile,
} from "@/core/image";
import { buildRows, imageRows, type Db } from "@/db";
import { no, STALE, yes, type Answer } from "./answer";
import { database, now } from "./database";
import { readEnvironment } from "./environment";
import { newId } from "./ids";

/** Adds the profiles that ship with Derrick where they are absent; a profile that a person changed stays. */
export async function addShippedProfiles(): Promise<void> {
  const { profilesFolder } = readEnvironment();
  const { write } = await database();
  for (const name of readdirSync(profilesFolder).filter((n) => n.endsWith(".yaml"))) {
    const yaml = readFileSync(join(profilesFolder, name), "utf8");
    const read = parseProfileYaml(yaml);
    if (!read.ok) throw new Error(`The shipped profile ${name} is not valid: ${read.problems[0]?.message}`);
    const { profile: key, version, name: title } = read.value;
    await write((tx) =>
      imageRows.putProfile(tx, { key, version, name: title, yaml, updatedAt: now() }, false),
    );
  }
}

export interface ProfileView {
  key: string;
  version: string;
  yaml: string;
  profile: Profile;
}

// Reading a profile takes longer than all checks of a build; the same text always gives the same profile.
const readProfiles = new Map<string, Profile | null>();

function profileOf(yaml: string): Profile | null {
  const known = readProfiles.get(yaml);
  if (known !== undefined) return known;
  const read = parseProfileYaml(yaml);
  if (readProfiles.size > 200) readProfiles.clear();
  readProfiles.set(yaml, read.ok ? read.value : null);
  return read.ok ? read.value : null;
}

function viewOf({ key, version, yaml }: { key: string; version: string; yaml: string }): ProfileView[] {
  const profile = profileOf(yaml);
  return profile ? [{ key, version, yaml, profile }] : [];
}

export const listProfiles = async (): Promise<ProfileView[]> =>
  (await imageRows.allProfiles((await database()).db)).flatMap(viewOf);

export async function profileView(key: string, version: string): Promise<ProfileView | null> {
  const row = await imageRows.profileRow((await database()).db, key, version);
  return row ? (viewOf(row)[0] ?? null) : null;
}

/** The profile for an image: of its family, the version that its own version begins with. */
export async function profileFor(db: Db, image: Image): Promise<Profile | null> {
  const rows = (await imageRows.allProfiles(db)).filter((p) => p.key === image.profile);
  const row =
    rows.find((p) => image.version === p.version || image.version.startsWith(`${p.version}.`)) ?? rows[0];
  return row ? (viewOf(row)[0]?.profile ?? null) : null;
}

export async function importProfile(yaml: string): Promise<Answer<{ key: string; version: string }>> {
  const read = parseProfileYaml(yaml);
  if (!read.ok) return { ok: false, problems: read.problems };
  const { profile: key, version, name } = read.value;
  await (
    await database()
  ).write((tx) => imageRows.putProfile(tx, { key, version, name, yaml, updatedAt: now() }, true));
  return yes({ key, version });
}

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
