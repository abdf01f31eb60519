import { evidence, hit } from "../finding";
import { formatBinaryBytes, formatBytes } from "../units";
import { profileName } from "./ground";
import type { Profile } from "./profile";

/**
 * Compares a measured amount (bytes, or cores) with what the profile asks: under the least is a stop, under the
 * recommended a caution. What was not measured is no finding here.
 */
export function amountAsked<At extends string>(
  ground: { profile: Profile | null },
  at: At,
  measured: number | null | undefined,
  source: string,
  kind: "memoryBytes" | "cores" | "diskBytes",
) {
  const asked = ground.profile?.requirements[kind];
  if (!asked || !measured || measured >= asked.recommended) return null;
  const words = (n: number): string =>
    kind === "cores" ? `${n} cores` : kind === "memoryBytes" ? formatBinaryBytes(n) : formatBytes(n);
  const short = measured < asked.least;
  const wanted = short ? asked.least : asked.recommended;
  const profile = profileName(ground);
  return hit(
    short ? "stop" : "caution",
    at,
    {
      has: words(measured),
      wanted: words(wanted),
      which: short ? "requires at least" : "recommends",
      profile,
    },
    evidence("the machine has", words(measured), source),
    evidence(short ? "least" : "recommended", words(wanted), `OS profile ${profile}`),
  );
}
