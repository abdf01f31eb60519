import type { Check, Finding, Hit, Messages, Severity, Waiver, Zone } from "./finding";

/** A finding with its number in its zone ("D2") and the waiver that sets it aside, if there is one. */
export interface PlacedFinding extends Finding {
  key: string;
  label: string;
  waiver: Waiver | null;
  /** A waiver that was given for other facts than those of today, and has ended. */
  ended: Waiver | null;
}

const ORDER: Record<Severity, number> = { stop: 0, caution: 1, note: 2 };

const keyOf = (finding: Finding): string =>
  finding.subject === undefined ? finding.code : `${finding.code}:${finding.subject}`;

const inWords = (template: string, facts: Record<string, string>): string =>
  template.replace(/\{(\w+)\}/g, (_, name: string) => facts[name] ?? "?");

/** The two facts that clash, without the time of day: what a waiver is given for. */
function basisOf(about: string, { evidence, facts }: Pick<Hit, "evidence" | "facts">): string {
  const lasting = evidence.filter((e) => e.source !== "clock").map((e) => `${e.what}: ${e.value}`);
  return [about, ...(lasting.length > 0 ? lasting : Object.values(facts))].filter(Boolean).join(" | ");
}

/**
 * Runs every check and puts what they say into words, in the order of the list. `about` names what a zone's findings are
 * about beside their own facts (the machine, the image): a waiver ends when that changes.
 */
export function runChecks<C>(
  checks: readonly Check<C>[],
  messages: Messages,
  context: C,
  about: (zone: Zone) => string = () => "",
): Finding[] {
  return checks.flatMap((check) =>
    check.run(context).map(({ facts, protectsData, ...hit }) => {
      const message = messages[check.code];
      if (!message) throw new Error(`no words for the check ${check.code}`);
      return {
        ...hit,
        basis: basisOf(about(check.zone), { evidence: hit.evidence, facts }),
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

/**
 * Numbers findings inside their zone, stops first, and attaches waivers. A waiver never covers an unwaivable finding, nor
 * one that is found from other facts than those it was given for.
 */
export function numberFindings(findings: readonly Finding[], waivers: readonly Waiver[]): PlacedFinding[] {
  const counts = new Map<Zone, number>();
  return [...findings]
    .sort((a, b) => a.zone.localeCompare(b.zone) || ORDER[a.severity] - ORDER[b.severity])
    .map((finding) => {
      const number = (counts.get(finding.zone) ?? 0) + 1;
      counts.set(finding.zone, number);
      const key = keyOf(finding);
      const given = finding.waivable ? (waivers.find((w) => w.key === key) ?? null) : null;
      const holds = given?.basis === finding.basis;
      return {
        ...finding,
        key,
        label: `${finding.zone}${number}`,
        waiver: holds ? given : null,
        ended: holds ? null : given,
      };
    });
}

/** The stops that nobody has set aside: while there is one, the run cannot start. */
export const openStops = (findings: readonly PlacedFinding[]): PlacedFinding[] =>
  findings.filter((f) => f.severity === "stop" && f.waiver === null);
