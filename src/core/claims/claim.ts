import { addressSortKey } from "../network";

/**
 * What a document can hold in the world that nobody else should hold, or by which it is found: "date" is a day on which it
 * calls for something, "words" is one text of all that people look for it by. From "prefix" on they are what a site says of
 * its networks, and the doors that a sheet opens: the parts of their keys are parted by blanks.
 */
export const CLAIM_KINDS = [
  "address",
  "name",
  "mac",
  "serial",
  "circuit",
  "device",
  "drive model",
  "machine model",
  "date",
  "words",
  "prefix",
  "range",
  "reservation",
  "thing",
  "vlan",
  "switch port",
  "default log-in",
  "door",
] as const;
export type ClaimKind = (typeof CLAIM_KINDS)[number];

/** One thing that a document claims. Two claims of one kind and key are about the same thing, however it was written. */
export interface Claim {
  kind: ClaimKind;
  key: string;
}

/** A claim with who holds it: a machine, or a sheet for the machine that it installs. */
export interface Held extends Claim {
  owner: "machine" | "build";
  ownerId: string;
  /** The machine that holds it, or that is to hold it; null while a sheet has none. */
  machineId: string | null;
  machine: string | null;
  siteId: string | null;
  /** The number of the sheet; null where a machine holds it. */
  number: string | null;
}

/** Who asks: what it holds itself is no clash, and neither is what its own machine's other sheets hold. */
export interface Asking {
  buildId: string | null;
  machineId: string | null;
  siteId: string | null;
}

/** A claim that another machine or build holds, as a rule sees it. */
export interface Rival extends Claim {
  /** What people call the other one. */
  owner: string;
  /** It stands at the same site; short names and private addresses mean nothing elsewhere. */
  here: boolean;
}

/** None for a text that is no address. */
export function addressClaim(text: string): Claim[] {
  const key = addressSortKey(text);
  return key === null ? [] : [{ kind: "address", key }];
}

/** One text in small letters, in which every word of a search is looked for. */
export const wordsClaim = (...words: (string | null | undefined)[]): Claim => ({
  kind: "words",
  key: words.filter(Boolean).join(" ").toLowerCase(),
});

/** A day, and what it calls for; they sort by day. */
export const dateClaim = (day: string, what: string): Claim => ({ kind: "date", key: `${day} ${what}` });

/** Each claim once. */
export const distinct = (claims: readonly Claim[]): Claim[] => [
  ...new Map(claims.map((claim) => [`${claim.kind} ${claim.key}`, claim])).values(),
];

/** A host name with or without its domain; none for an empty one. */
export const nameClaim = (name: string): Claim[] =>
  name.trim() === "" ? [] : [{ kind: "name", key: name.trim().toLowerCase() }];

export const macClaim = (mac: string): Claim => ({ kind: "mac", key: mac.toLowerCase() });

/** None where there is no serial. */
export const serialClaim = (serial: string | null | undefined): Claim[] =>
  serial ? [{ kind: "serial", key: serial }] : [];

/** Those of some claims that others hold, among all that are held. */
export function rivalsAmong(held: readonly Held[], asked: readonly Claim[], asking: Asking): Rival[] {
  const { buildId, machineId, siteId } = asking;
  return held
    .filter((h) => asked.some((a) => a.kind === h.kind && a.key === h.key))
    .filter((h) => !(h.owner === "build" && h.ownerId === buildId))
    .filter((h) => machineId === null || h.machineId !== machineId)
    .map(({ kind, key, machine, number, siteId: its }) => ({
      kind,
      key,
      owner: number === null ? (machine ?? "") : `${number} (${machine ?? "no machine"})`,
      here: machineId === null || its === siteId,
    }));
}
