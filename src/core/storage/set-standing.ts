import type { Facts } from "../machine";
import { tolerates } from "./bench/layout";
import { standing } from "./bench/standing";
import { toldLayout } from "./told-layout";

/** What an array, pool or virtual drive still bears, by what its own tool told of it. */
export interface SetStanding {
  /** Members that may still fail, whichever they are. */
  left: number;
  /** Names of members of which not one more may go; empty while one may. */
  mustStay: string[];
}

/**
 * Null where it cannot be told: no layout that can be counted with; a fault of which no listed member is the cause, as where
 * a lost one is no longer listed; work under way.
 */
export function setStanding(set: Facts["sets"][number]): SetStanding | null {
  const { health, progress } = set;
  const told = toldLayout(set);
  if (!told || health === "failed" || health === "unknown") return null;
  const { layout, members, lost } = told;
  if (progress !== null || (health !== "good" && lost.length === 0)) return null;
  const gone = new Set(lost);
  const { state, mustStay } = standing(layout, gone);
  if (state === "lost") return null;
  const left = layout.groups.map((g) => tolerates(layout) - g.filter((i) => gone.has(i)).length);
  return { left: Math.min(...left), mustStay: mustStay.map((i) => members[i]!.name) };
}
