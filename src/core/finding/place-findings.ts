import { inWordsOfToday } from "./older-words";
import { daysInWords } from "../units";
import type { Check, Evidence, Facts, Finding, Message, Messages, Severity, Waiver, Zone } from "./finding";

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

const filled = (template: string, words: Facts): string =>
  template.replace(/\{(\w+)\}/g, (_, name: string) => daysInWords(words[name] ?? "?"));

/** Facts as they stand in sentences: a code of a phrase becomes its text, filled with the other facts. */
function wordsOf({ phrases }: Message, facts: Facts): Facts {
  const worded = Object.entries(phrases).map(([fact, texts]) => {
    const text = texts[facts[fact] ?? ""];
    return [fact, text === undefined ? undefined : filled(text, facts)];
  });
  return { ...facts, ...Object.fromEntries(worded) };
}

/** The two facts that clash, without the time of day: what a waiver is given for. */
function basisOf(about: string, evidence: readonly Evidence[], words: Facts): string {
  const lasting = evidence.filter((e) => e.source !== "clock").map((e) => `${e.what}: ${e.value}`);
  return [about, ...(lasting.length > 0 ? lasting : Object.values(words))].filter(Boolean).join(" | ");
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
      const words = wordsOf(message, facts);
      return {
        ...hit,
        basis: basisOf(about(check.zone), hit.evidence, words),
        code: check.code,
        zone: check.zone,
        title: message.title,
        says: filled(message.says, words),
        remedy: filled(message.remedy, words),
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
    .sort((a, b) => (a.zone === b.zone ? ORDER[a.severity] - ORDER[b.severity] : a.zone < b.zone ? -1 : 1))
    .map((finding) => {
      const number = (counts.get(finding.zone) ?? 0) + 1;
      counts.set(finding.zone, number);
      const key = keyOf(finding);
      const given = finding.waivable ? (waivers.find((w) => w.key === key) ?? null) : null;
      const holds = given?.basis != null && inWordsOfToday(given.basis) === inWordsOfToday(finding.basis);
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
