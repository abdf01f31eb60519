import type { Check, Finding, Message, Severity, Waiver, Zone } from "./finding";

/** A finding with its number in its zone ("D2") and the waiver that sets it aside, if there is one. */
export interface PlacedFinding extends Finding {
  key: string;
  label: string;
  waiver: Waiver | null;
}

const ORDER: Record<Severity, number> = { stop: 0, caution: 1, note: 2 };

const keyOf = (finding: Finding): string =>
  finding.subject === undefined ? finding.code : `${finding.code}:${finding.subject}`;

const inWords = (template: string, facts: Record<string, string>): string =>
  template.replace(/\{(\w+)\}/g, (_, name: string) => facts[name] ?? "?");

/** Runs every check and puts what they say into words, in the order of the list. */
export function runChecks<C>(
  checks: readonly Check<C>[],
  messages: Readonly<Record<string, Message>>,
  context: C,
): Finding[] {
  return checks.flatMap((check) =>
    check.run(context).map(({ facts, protectsData, ...hit }) => {
      const message = messages[check.code];
      if (!message) throw new Error(`no words for the check ${check.code}`);
      return {
        ...hit,
        code: check.code,
        zone: check.zone,
        title: message.title,
        says: inWords(message.says, facts),
        remedy: inWords(message.remedy, facts),
        waivable: !protectsData,
      };
    }),
  );
}

/** Numbers findings inside their zone, stops first, and attaches waivers. A waiver never covers an unwaivable finding. */
export function numberFindings(findings: readonly Finding[], waivers: readonly Waiver[]): PlacedFinding[] {
  const counts = new Map<Zone, number>();
  return [...findings]
    .sort((a, b) => a.zone.localeCompare(b.zone) || ORDER[a.severity] - ORDER[b.severity])
    .map((finding) => {
      const number = (counts.get(finding.zone) ?? 0) + 1;
      counts.set(finding.zone, number);
      const key = keyOf(finding);
      const waiver = finding.waivable ? (waivers.find((w) => w.key === key) ?? null) : null;
      return { ...finding, key, label: `${finding.zone}${number}`, waiver };
    });
}

/** The stops that nobody has set aside: while there is one, the run cannot start. */
export const openStops = (findings: readonly PlacedFinding[]): PlacedFinding[] =>
  findings.filter((f) => f.severity === "stop" && f.waiver === null);
