import { numberFindings, runChecks, type Finding, type PlacedFinding } from "../../finding";
import { addClaim, emptyLedger, headOf, removeClaim, type Ledger, type SiteClaim } from "./ledger";
import { SITE_MESSAGES } from "./messages.en";
import { SITE_RULES, STRETCH_RULES } from "./rules";

/** A site with what is wrong with it, topic by topic, so that a change asks only about what it touches. */
export interface SiteJudgement {
  ledger: Ledger;
  found: Map<string, Finding[]>;
}

const STRETCHES = "stretches";

/** What stands in a topic is told by the topic's own key, so that two findings of one rule are apart. */
const withSubject = (topic: string, findings: readonly Finding[]): Finding[] =>
  findings.map((f, i) => ({ ...f, subject: f.subject ?? (i === 0 ? topic : `${topic} ${i}`) }));

function judgeTopic({ ledger, found }: SiteJudgement, topic: string): void {
  const claims = ledger.topics.get(topic) ?? [];
  const { least = 1, rules = [] } = SITE_RULES.get(topic.slice(0, topic.indexOf(" "))) ?? {};
  const findings = claims.length < least ? [] : runChecks(rules, SITE_MESSAGES, { claims, ledger });
  if (findings.length > 0) found.set(topic, withSubject(topic, findings));
  else found.delete(topic);
}

function judgeStretches({ ledger, found }: SiteJudgement): void {
  found.set(STRETCHES, runChecks(STRETCH_RULES, SITE_MESSAGES, { claims: [], ledger }));
}

const isStretch = ({ kind }: SiteClaim): boolean => kind === "prefix" || kind === "range";

/** Whose card a MAC is decides what a reservation for it says of its address: that topic is asked again as well. */
const withReserved = ({ topics }: Ledger, touched: ReadonlySet<string>): Set<string> =>
  new Set([
    ...touched,
    ...[...touched]
      .filter((t) => t.startsWith("mac "))
      .flatMap((t) => topics.get(t) ?? [])
      .flatMap((c) => (c.kind === "reservation" ? [`address ${headOf(c.key).head}`] : [])),
  ]);

/** Judges a site by all that is claimed there, and by the prefixes of other sites. */
export function judgeSite(claims: readonly SiteClaim[]): SiteJudgement {
  const judgement: SiteJudgement = { ledger: emptyLedger(), found: new Map() };
  for (const claim of claims) addClaim(judgement.ledger, claim);
  for (const topic of judgement.ledger.topics.keys()) judgeTopic(judgement, topic);
  judgeStretches(judgement);
  return judgement;
}

/**
 * Changes a judgement in place to what `judgeSite` would say after a change of claims. Only topics that it touches are asked
 * again; when a prefix or a range changes, all addresses are.
 */
export function rejudgeInPlace(
  judgement: SiteJudgement,
  { removed, added }: { removed: readonly SiteClaim[]; added: readonly SiteClaim[] },
): void {
  const { ledger } = judgement;
  const touched = new Set<string>();
  for (const claim of removed) for (const topic of removeClaim(ledger, claim)) touched.add(topic);
  for (const claim of added) for (const topic of addClaim(ledger, claim)) touched.add(topic);
  if ([...removed, ...added].some(isStretch)) {
    judgeStretches(judgement);
    for (const topic of ledger.topics.keys()) touched.add(topic);
  }
  for (const topic of withReserved(ledger, touched)) judgeTopic(judgement, topic);
}

/** What is wrong with a site, stops first, numbered; the same whatever way the judgement was come by. */
export function siteFindings({ found }: SiteJudgement): PlacedFinding[] {
  const keyed = [...found.values()].flat().map((f) => ({ f, key: `${f.code} ${f.subject ?? ""}` }));
  keyed.sort((a, b) => (a.key < b.key ? -1 : a.key > b.key ? 1 : 0));
  return numberFindings(
    keyed.map(({ f }) => f),
    [],
  );
}
