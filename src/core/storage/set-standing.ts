import { isSoundMember, type Facts } from "../machine";

/** What an array, pool or virtual drive still bears, by what its own tool told of it. */
export interface SetStanding {
  /** Members that may still fail, whichever they are. */
  left: number;
  /** Names of members of which not one more may go; empty while one may. */
  mustStay: string[];
}

const PARITY: readonly [RegExp, (members: number) => number][] = [
  [/^(mirror\b.*|raid-?\s?1)$/i, (members) => members - 1],
  [/^(raidz1?|raid-?\s?[45])$/i, () => 1],
  [/^(raidz2|raid-?\s?6)$/i, () => 2],
  [/^raidz3$/i, () => 3],
  [/^(single|linear|stripe|raid-?\s?0)$/i, () => 0],
];

/**
 * Null where it cannot be told: several groups, whose members the tool lists without saying which is in which; a fault of
 * which no listed member is the cause, as where a lost one is no longer listed; work under way.
 */
export function setStanding({ level, members, health, progress }: Facts["sets"][number]): SetStanding | null {
  const own = members.filter((m) => m.role === "member");
  const parity = PARITY.find(([words]) => words.test(level ?? ""))?.[1];
  if (!parity || own.length === 0 || health === "failed" || health === "unknown") return null;
  const lost = own.filter((m) => !isSoundMember(m.state));
  if (progress !== null || (health !== "good" && lost.length === 0)) return null;
  const left = parity(own.length) - lost.length;
  if (left < 0) return null;
  return { left, mustStay: left > 0 ? [] : own.filter((m) => !lost.includes(m)).map((m) => m.name) };
}
