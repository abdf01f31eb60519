import {
  derive,
  evaluateSheet,
  markOf,
  type Evaluation,
  type Plan,
  type SheetMark,
  type Sources,
} from "@/core/sheet";

/** A sheet with all that follows from it. */
export interface Judgement {
  plan: Plan;
  evaluation: Evaluation;
}

/** By sheet, the one that was asked for last at the end. */
const kept = new Map<string, { basis: readonly unknown[]; judged: Judgement }>();
const MOST = 100;

/**
 * All that a sheet is judged by, flat, so that two judgements of the same are found to be the same: documents are one
 * object as long as their text is one, and what was worked out of them is compared by what it says. Rules look at the
 * clock for days; a minute is much less.
 */
function basisOf(sources: Sources): readonly unknown[] {
  const { now, sheet, machine, site, image, profile, compat, profiles, shelf, sticks, samples, times } =
    sources;
  const { rivals, pasts, circuit, edition, secrets } = sources;
  return [
    now.slice(0, "2026-11-24T08:00".length),
    ...[sheet, machine?.name, machine?.document, site, image, profile, samples, times],
    ...[...compat, "profiles", ...profiles, "shelf", ...shelf.map((s) => s.image)],
    ...["sticks", ...sticks.map((s) => s.entry)],
    JSON.stringify([rivals, pasts, circuit, edition, secrets]),
  ];
}

const same = (a: readonly unknown[], b: readonly unknown[]): boolean =>
  a.length === b.length && a.every((value, i) => value === b[i]);

/** What follows from a sheet. It is worked out when what it is worked out from has changed, and kept until then. */
export function keptJudgement(id: string, sources: Sources): Judgement {
  const basis = basisOf(sources);
  const before = kept.get(id);
  if (before && same(before.basis, basis)) return before.judged;
  const plan = derive(sources);
  const judged = { plan, evaluation: evaluateSheet(plan) };
  kept.delete(id);
  kept.set(id, { basis, judged });
  if (kept.size > MOST) kept.delete(kept.keys().next().value!);
  return judged;
}

/** What lists show of a sheet. */
export const keptMark = (id: string, sources: Sources): SheetMark =>
  markOf(keptJudgement(id, sources).evaluation);
