import { fail, ok, type Result } from "../../result";
import type { Profile } from "./profile";

/** What a person says of a family of their own: the rest is taken over and changed later. */
export interface OwnFamily {
  name: string;
  version: string;
  /** Words of its file names, all of which must occur. */
  recognise: string[];
}

/** "Brook Server" becomes "brook-server"; "" where no letter or digit is left. */
export const slugOf = (name: string): string =>
  name
    .normalize("NFD")
    .toLowerCase()
    .replace(/[\u0300-\u036f]/g, "")
    .replace(/[^a-z0-9]+/g, "-")
    .replace(/^-+|-+$/g, "");

/**
 * A profile of one's own, made from one that is like it. What is true of that one only is not taken along: until when it is
 * supported, the jumps onto it, and what a running system of it says of itself.
 */
export function ownProfile(from: Profile, { name, version, recognise }: OwnFamily): Result<Profile> {
  const key = slugOf(name);
  const words = recognise.map((w) => w.trim()).filter(Boolean);
  if (key === "") return fail({ message: "Enter a name with a letter or a digit." });
  if (version.trim() === "") return fail({ message: "Enter a version: images are matched by it." });
  if (key === from.profile && version.trim() === from.version)
    return fail({
      message: `${from.name} ${from.version} exists already; enter another name or version.`,
    });
  if (words.length === 0)
    return fail({
      message: "Enter at least one word of its file names, so that images can be recognised.",
    });
  return ok({
    ...from,
    ...{ profile: key, name: name.trim(), version: version.trim(), recognise: words },
    support: { channel: "current", ends: null },
    identify: { id: key, version: version.trim(), marks: [] },
    upgrades: [],
  });
}
