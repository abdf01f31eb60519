import type { Severity, Zone } from "./finding";
import type { PlacedFinding } from "./place-findings";

/**
 * What stands in a margin as one: a finding, several that say the same of different things, or all that asks nobody to do
 * anything in a zone – notes, and what was set aside.
 */
export interface FindingGroup {
  kind: "one" | "equal" | "quiet";
  /** The key of its first finding, or the zone. */
  key: string;
  zone: Zone;
  severity: Severity;
  findings: readonly PlacedFinding[];
}

const isQuiet = ({ severity, waiver, ended }: PlacedFinding): boolean =>
  waiver !== null || (severity === "note" && ended === null);

const group = (
  kind: FindingGroup["kind"],
  findings: readonly PlacedFinding[],
  key: string,
): FindingGroup => ({
  ...{ kind, key, findings, zone: findings[0]!.zone },
  severity: kind === "quiet" ? "note" : findings[0]!.severity,
});

/** Findings of one code in a zone, where each stands for itself or is joined with its like. */
function alike(findings: readonly PlacedFinding[]): FindingGroup[] {
  const codes = new Map<string, PlacedFinding[]>();
  for (const f of findings) {
    const key = `${f.severity} ${f.code}`;
    codes.set(key, [...(codes.get(key) ?? []), f]);
  }
  return [...codes.values()].map((all) => group(all.length > 1 ? "equal" : "one", all, all[0]!.key));
}

/** Findings as they stand in a margin, zone by zone: stops, cautions, then the quiet ones in a line. */
export function foldFindings(findings: readonly PlacedFinding[]): FindingGroup[] {
  const zones = [...new Set(findings.map((f) => f.zone))];
  return zones.flatMap((zone) => {
    const own = findings.filter((f) => f.zone === zone);
    const quiet = own.filter(isQuiet);
    return [
      ...alike(own.filter((f) => !isQuiet(f))),
      ...(quiet.length > 1
        ? [group("quiet", quiet, `quiet ${zone}`)]
        : quiet.map((f) => group("one", [f], f.key))),
    ];
  });
}

const many = (n: number, one: string): string => (n === 0 ? "" : `${n} ${one}${n === 1 ? "" : "s"}`);

/** "4 notes, 1 set aside". */
export function quietWords({ findings }: Pick<FindingGroup, "findings">): string {
  const aside = findings.filter((f) => f.waiver !== null).length;
  return [many(findings.length - aside, "note"), aside === 0 ? "" : `${aside} waived`]
    .filter(Boolean)
    .join(", ");
}
