import { evaluateBuild, markOf, type BuildContext, type Evaluation, type SheetMark } from "@/core/build";

/** By sheet, the one that was asked for last at the end. */
const kept = new Map<string, { basis: readonly unknown[]; evaluation: Evaluation }>();
const MOST = 100;

/**
 * All that a sheet is judged by, flat, so that two judgements of the same are found to be the same: documents are one
 * object as long as their text is one, and what was worked out of them is compared by what it says. Rules look at the
 * clock for days; a minute is much less.
 */
function basisOf(context: BuildContext): readonly unknown[] {
  const { now, sheet, machine, site, image, profile, compat, profiles, shelf, sticks, samples, times } =
    context;
  const { rivals, pasts, circuit, edition } = context;
  return [
    now.slice(0, "2026-11-24T08:00".length),
    ...[sheet, machine?.name, machine?.document, site, image, profile, samples, times],
    ...[...compat, "profiles", ...profiles, "shelf", ...shelf.map((s) => s.image)],
    ...["sticks", ...sticks.map((s) => s.entry)],
    JSON.stringify([rivals, pasts, circuit, edition]),
  ];
}

const same = (a: readonly unknown[], b: readonly unknown[]): boolean =>
  a.length === b.length && a.every((value, i) => value === b[i]);

/** What follows from a sheet. It is worked out when what it is worked out from has changed, and kept until then. */
export function keptEvaluation(id: string, context: BuildContext): Evaluation {
  const basis = basisOf(context);
  const before = kept.get(id);
  if (before && same(before.basis, basis)) return before.evaluation;
  const evaluation = evaluateBuild(context);
  kept.delete(id);
  kept.set(id, { basis, evaluation });
  if (kept.size > MOST) kept.delete(kept.keys().next().value!);
  return evaluation;
}

/** What lists show of a sheet. */
export const keptMark = (id: string, context: BuildContext): SheetMark => markOf(keptEvaluation(id, context));
