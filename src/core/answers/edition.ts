import type { Profile } from "../image";
import { placeholdersOf } from "../text";

/** Whether the installer of a family asks for an edition, on a screen or in its file. */
export const asksEdition = ({ screens, firstBoot, answerScript }: Profile): boolean =>
  [
    ...[...screens, ...firstBoot].flatMap((s) => s.type.map((t) => t.value)),
    ...(answerScript?.sections ?? []).flatMap((s) => s.lines),
  ].some((text) => placeholdersOf(text).includes("edition.name"));

/** Why an edition does not answer what the installer will ask, or null. */
export function editionProblem(edition: string, profile: Profile | null): string | null {
  if (!profile || !asksEdition(profile)) return null;
  const names = profile.editions.map((e) => e.name);
  if (names.includes(edition)) return null;
  const known = names.length > 0 ? `, of ${names.join(", ")}` : "";
  return edition === ""
    ? `the installer asks for an OS edition${known}`
    : `"${edition.slice(0, 40)}" is not an edition of ${profile.name}${known}`;
}
