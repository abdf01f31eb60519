import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import type { Answer } from "@/contract";
import { editProfileYaml, parseProfileYaml, profileSchema, type Image, type Profile } from "@/core/image";
import type { Problem } from "@/core/result";
import { inLine } from "@/core/text";
import { profileRows, type Db } from "@/db";
import { no, yes } from "./answer";
import { readEnvironment } from "./environment";
import type { Desk } from "./desk";

/**
 * Adds the profiles that ship with Derrick. Where the newest edition is one that shipped, a changed text becomes the
 * next edition; an edition that a person wrote stays the newest.
 */
export async function addShippedProfiles(desk: Desk): Promise<void> {
  const { profilesFolder } = readEnvironment();
  const { write } = desk;
  for (const name of readdirSync(profilesFolder).filter((n) => n.endsWith(".yaml"))) {
    const yaml = readFileSync(join(profilesFolder, name), "utf8");
    const read = parseProfileYaml(yaml);
    if (!read.ok) throw new Error(`The included profile ${name} is not valid: ${read.problems[0]?.message}`);
    const { profile: key, version, name: title } = read.value;
    await write(async (tx) => {
      const [last] = await profileRows.editions(tx, key, version);
      if (last && (last.by !== "" || last.yaml === yaml)) return;
      const edition = (last?.edition ?? 0) + 1;
      await profileRows.add(tx, { key, version, edition, name: title, by: "", updatedAt: desk.now(), yaml });
    });
  }
}

export interface ProfileView {
  key: string;
  version: string;
  edition: number;
  by: string;
  updatedAt: string;
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

function viewOf(row: profileRows.ProfileRow): ProfileView[] {
  const profile = profileOf(row.yaml);
  const { key, version, edition, by, updatedAt, yaml } = row;
  return profile ? [{ key, version, edition, by, updatedAt, yaml, profile }] : [];
}

/** The newest edition of each profile. */
export const listProfiles = async (desk: Desk): Promise<ProfileView[]> =>
  (await profileRows.newest(desk.db)).flatMap(viewOf);

/** The newest edition of each, out of all rows in their order. */
export const newestProfiles = (rows: readonly profileRows.ProfileRow[]): Profile[] =>
  profileRows
    .firstOfEach(rows)
    .flatMap(viewOf)
    .map((v) => v.profile);

/** One edition of a profile, the newest when none is named, with the list of its editions. */
export async function profileView(
  desk: Desk,
  key: string,
  version: string,
  edition: number | null = null,
): Promise<(ProfileView & { editions: { edition: number; by: string; updatedAt: string }[] }) | null> {
  const rows = await profileRows.editions(desk.db, key, version);
  const row = edition === null ? rows[0] : rows.find((r) => r.edition === edition);
  const view = row && viewOf(row)[0];
  return view
    ? { ...view, editions: rows.map(({ edition: e, by, updatedAt }) => ({ edition: e, by, updatedAt })) }
    : null;
}

/** The row of the profile for an image: of its family, the version that its own version belongs to; else the newest. */
function rowFor(rows: readonly profileRows.ProfileRow[], image: Image): profileRows.ProfileRow | undefined {
  const family = rows.filter((p) => p.key === image.profile);
  return family.find((p) => inLine(image.version, p.version)) ?? family[0];
}

export async function profileFor(db: Db, image: Image): Promise<Profile | null> {
  const row = rowFor(await profileRows.newest(db), image);
  return row ? (viewOf(row)[0]?.profile ?? null) : null;
}

/** The profile of a build: the edition that the sheet keeps, else the newest; and which editions these are. */
export function editionFor(
  rows: readonly profileRows.ProfileRow[],
  image: Image,
  kept: number | null,
): { profile: Profile; kept: number; newest: number } | null {
  const newest = rowFor(rows, image);
  if (!newest) return null;
  const row =
    rows.find((r) => r.key === newest.key && r.version === newest.version && r.edition === kept) ?? newest;
  const profile = viewOf(row)[0]?.profile;
  return profile ? { profile, kept: row.edition, newest: newest.edition } : null;
}

/** Keeps a profile as the next edition of its version. The same text again is no new edition. */
export async function importProfile(
  desk: Desk,
  yaml: string,
): Promise<Answer<{ key: string; version: string; edition: number }>> {
  const read = parseProfileYaml(yaml);
  if (!read.ok) return { ok: false, problems: read.problems };
  const { profile: key, version, name } = read.value;
  return desk.write(async (tx) => {
    const [last] = await profileRows.editions(tx, key, version);
    if (last?.yaml === yaml) return yes({ key, version, edition: last.edition });
    const edition = (last?.edition ?? 0) + 1;
    await profileRows.add(tx, { key, version, edition, name, by: desk.actor, updatedAt: desk.now(), yaml });
    return yes({ key, version, edition });
  });
}

/** What keeping a profile came to: the edition that it became, or the one that was written in between. */
export type ProfileAnswer =
  | { ok: true; value: { edition: number } }
  | {
      ok: false;
      problems: Problem[];
      stale?: { edition: number; profile: Profile; by: string; at: string };
    };

/** Keeps what was changed in the form as the next edition; comments and the order of the text stay. */
export async function saveProfile(
  desk: Desk,
  key: string,
  version: string,
  edition: number,
  fields: unknown,
): Promise<ProfileAnswer> {
  const view = await profileView(desk, key, version);
  if (!view) return no("This profile no longer exists.");
  if (view.edition !== edition) {
    const by = view.by || "an update of Derrick";
    return {
      ...no(`Revision ${view.edition} was saved by ${by} meanwhile, so nothing was saved.`),
      stale: { edition: view.edition, profile: view.profile, by, at: view.updatedAt },
    };
  }
  const read = profileSchema.safeParse(fields);
  if (!read.success)
    return {
      ok: false,
      problems: read.error.issues.map((i) => ({ message: `${i.path.join(".")}: ${i.message}` })),
    };
  if (read.data.profile !== key || read.data.version !== version)
    return no("Short name and version identify a profile; duplicate it to change them.");
  return importProfile(desk, editProfileYaml(view.yaml, read.data));
}
