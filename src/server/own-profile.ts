import type { Answer, ProfilePreview } from "@/contract";
import {
  lackedBy,
  lacksOf,
  ownProfile,
  profileSchema,
  renderProfileYaml,
  type OwnFamily,
} from "@/core/image";
import { exampleSteps } from "@/core/sheet";
import { isGuard } from "@/core/work";
import { profileRows } from "@/db";
import { no } from "./answer";
import type { Desk } from "./desk";
import { takeFor } from "./images";
import { importProfile, profileView } from "./profiles";

type Made = Answer<{ key: string; version: string; edition: number }>;

/** A family of one's own, from one that is like it; with an image, that image is of it from then on. */
export async function makeMine(
  desk: Desk,
  key: string,
  version: string,
  own: OwnFamily,
  imageId: string | null,
): Promise<Made> {
  const from = await profileView(desk, key, version);
  if (!from) return no("This profile no longer exists.");
  const made = ownProfile(from.profile, own);
  if (!made.ok) return made;
  const { profile, version: line, name } = made.value;
  if ((await profileRows.editions(desk.db, profile, line)).length > 0)
    return no(`There is already a profile ${name} ${line}; open that one, or choose another name.`);
  const kept = await importProfile(desk, renderProfileYaml(made.value));
  if (!kept.ok || imageId === null) return kept;
  const taken = await takeFor(desk, imageId, profile);
  return taken.ok ? kept : taken;
}

export function previewProfile(desk: Desk, fields: unknown): Promise<ProfilePreview> {
  const read = profileSchema.safeParse(fields);
  if (!read.success) {
    const problems = read.error.issues.slice(0, 20).map(({ path, message }) => {
      const place = path.join(".");
      return { message: `${place}: ${message}`, lacks: lackedBy(place) };
    });
    return Promise.resolve({ steps: [], lacks: [], problems });
  }
  const steps = exampleSteps(read.data, desk.now()).map((step) => ({
    id: step.id,
    zone: step.zone,
    isGuard: isGuard(step),
    title: step.title,
    likelySeconds: step.duration.likelySeconds,
  }));
  return Promise.resolve({ steps, lacks: lacksOf(read.data), problems: [] });
}
