import { keysOf } from "../../text";
import type { Claim } from "../../claims";

/** A claim as the check of a whole site sees it: with who holds it. */
export interface SiteClaim extends Claim {
  owner: "site" | "machine" | "build";
  ownerId: string;
  /** What people call the owner; for a claim of another site, that site's name. */
  name: string;
  /** The machine that it is about; null for claims of sites, and of sheets without a machine. */
  machineId: string | null;
  /** Claims of other sites: of these only prefixes are looked at. */
  elsewhere?: boolean;
}

/** A stretch of addresses, by sort keys, both ends included. */
export interface Stretch {
  first: string;
  last: string;
  claim: SiteClaim;
  words: string;
}

/**
 * All that is claimed at a site, by what it is about. `topics` holds the claims that clash when two hold one; stretches are
 * few, and are looked through.
 */
export interface Ledger {
  topics: Map<string, SiteClaim[]>;
  prefixes: Stretch[];
  ranges: Stretch[];
}

/** The first word of a key, and the rest. */
export function headOf(key: string): { head: string; rest: string } {
  const at = key.indexOf(" ");
  return at < 0 ? { head: key, rest: "" } : { head: key.slice(0, at), rest: key.slice(at + 1) };
}

/** Kinds whose claims are looked at together, by the head of their key: an address is one topic, whoever says it. */
const TOPIC: Partial<
  Record<Claim["kind"], "address" | "name" | "mac" | "switch port" | "vlan" | "default log-in">
> = {
  address: "address",
  thing: "address",
  reservation: "address",
  name: "name",
  mac: "mac",
  "switch port": "switch port",
  vlan: "vlan",
  "default log-in": "default log-in",
};

/** The kinds of claims that a ledger is made of. */
export const LEDGER_KINDS: readonly Claim["kind"][] = [...keysOf(TOPIC), "prefix", "range"];

/** The topics of a claim; a reservation is about its address and about its MAC. */
export function topicsOf({ kind, key }: Claim): string[] {
  const topic = TOPIC[kind];
  if (!topic) return [];
  const { head, rest } = headOf(key);
  if (topic === "name" || topic === "default log-in") return [`${topic} ${key}`];
  if (kind === "vlan") return [`vlan ${head} ${headOf(rest).head}`];
  return kind === "reservation" ? [`address ${head}`, `mac ${headOf(rest).head}`] : [`${topic} ${head}`];
}

const stretchOf = (claim: SiteClaim): Stretch => {
  const { head: first, rest } = headOf(claim.key);
  const { head: last, rest: words } = headOf(rest);
  return { first, last, claim, words };
};

const isSame = (a: SiteClaim, b: SiteClaim): boolean =>
  a.kind === b.kind && a.key === b.key && a.owner === b.owner && a.ownerId === b.ownerId;

export const emptyLedger = (): Ledger => ({ topics: new Map(), prefixes: [], ranges: [] });

const stretchesIn = (ledger: Ledger, kind: Claim["kind"]): Stretch[] | null =>
  kind === "prefix" ? ledger.prefixes : kind === "range" ? ledger.ranges : null;

/** Puts a claim into the ledger; gives the topics that it touches. */
export function addClaim(ledger: Ledger, claim: SiteClaim): string[] {
  stretchesIn(ledger, claim.kind)?.push(stretchOf(claim));
  const topics = claim.elsewhere ? [] : topicsOf(claim);
  for (const topic of topics) {
    const held = ledger.topics.get(topic);
    if (held) held.push(claim);
    else ledger.topics.set(topic, [claim]);
  }
  return topics;
}

/** Takes a claim out of the ledger; gives the topics that it touches. */
export function removeClaim(ledger: Ledger, claim: SiteClaim): string[] {
  const stretches = stretchesIn(ledger, claim.kind);
  const at = stretches?.findIndex((s) => isSame(s.claim, claim)) ?? -1;
  if (at >= 0) stretches!.splice(at, 1);
  const topics = claim.elsewhere ? [] : topicsOf(claim);
  for (const topic of topics) {
    const left = (ledger.topics.get(topic) ?? []).filter((c) => !isSame(c, claim));
    if (left.length > 0) ledger.topics.set(topic, left);
    else ledger.topics.delete(topic);
  }
  return topics;
}
