import type { PlacedFinding } from "@/core/finding";
import { judgeSite, rejudgeInPlace, siteFindings, type SiteClaim, type SiteJudgement } from "@/core/site";
import { changeRows, claimRows, type Db } from "@/db";
import type { Desk } from "./desk";

/** A site's judgement as it stood after a write, with the claims that it was made of. */
interface Kept {
  seq: number;
  claims: SiteClaim[];
  judgement: SiteJudgement;
}

/** By database, so that one that was closed takes its judgements with it; then by site. */
const kept = new WeakMap<Db, Map<string, Promise<Kept>>>();
/** After more writes than this, all is read again. */
const MOST_CHANGES = 200;

const CLAIMING = ["machine", "build", "site"];

async function judgedAnew(db: Db, siteId: string, seq: number): Promise<Kept> {
  const claims = await claimRows.claimsAtSite(db, siteId);
  return { seq, claims, judgement: judgeSite(claims) };
}

/** The same, from a judgement that was made before and the writes since: only their owners' claims are read. */
async function judgedOn(db: Db, siteId: string, before: Kept, seq: number): Promise<Kept> {
  const changes = await changeRows.since(db, before.seq, MOST_CHANGES + 1);
  if (changes.length > MOST_CHANGES) return judgedAnew(db, siteId, seq);
  const owners = new Set(changes.filter((c) => CLAIMING.includes(c.kind)).map((c) => c.id));
  if (owners.size === 0) return { ...before, seq };
  const added = await claimRows.claimsAtSite(db, siteId, [...owners]);
  const isOld = (c: SiteClaim): boolean => owners.has(c.ownerId) || owners.has(c.machineId ?? "");
  const removed = before.claims.filter(isOld);
  rejudgeInPlace(before.judgement, { removed, added });
  return {
    ...{ seq, judgement: before.judgement },
    claims: [...before.claims.filter((c) => !isOld(c)), ...added],
  };
}

/** What is wrong with a site as a whole, from the table of claims; documents are not read. */
export async function siteCheck({ db }: Pick<Desk, "db">, siteId: string): Promise<PlacedFinding[]> {
  const own = kept.get(db) ?? new Map<string, Promise<Kept>>();
  kept.set(db, own);
  // One after another: a judgement is changed in place.
  const before = (own.get(siteId) ?? Promise.resolve(null)).catch(() => null);
  const now = before.then(async (old) => {
    const seq = await changeRows.last(db);
    if (old === null) return judgedAnew(db, siteId, seq);
    return old.seq === seq ? old : judgedOn(db, siteId, old, seq);
  });
  own.set(siteId, now);
  return siteFindings((await now).judgement);
}
