import { localDay } from "../../units";
import type { Drive } from "../../machine";
import { consentFor, type StorageGround } from "../ground";

/** How the consent to erase a drive stands, as the facts of a sentence. */
export function consentFacts(context: StorageGround, drive: Drive) {
  const given = consentFor(context, drive);
  if (!given) return { state: "nobody" } as const;
  const { by, at, holds } = given.consent;
  const who = { by, day: localDay(at, context) };
  if (given.holds) return { state: "agreed", ...who } as const;
  return holds === null
    ? ({ state: "ended, not said for what", ...who } as const)
    : ({ state: "ended", ...who, before: holds } as const);
}
