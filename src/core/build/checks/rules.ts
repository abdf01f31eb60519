import type { Check, Evidence, Hit, Severity, Zone } from "../../finding";
import type { BuildContext } from "../context";

export type Rule = Check<BuildContext>;

/** A rule that says one thing or nothing. */
export function rule(code: string, zone: Zone, run: (context: BuildContext) => Hit | Hit[] | null): Rule {
  return { code, zone, run: (context) => [run(context) ?? []].flat() };
}

export const evidence = (what: string, value: string, source: string): Evidence => ({ what, value, source });

export function hit(
  severity: Severity,
  at: string,
  facts: Record<string, string>,
  ...shown: Evidence[]
): Hit {
  return { severity, at, facts, evidence: shown };
}
