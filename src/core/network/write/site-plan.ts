import { unseenTexts } from "../../document";
import { addressSortKey, isAddress } from "../address";
import type { Segment } from "../segment";
import { isDomain, isLabel } from "./host-plan";

/** Something with a name and an address at a site: a machine that is planned, a thing, a card with a reservation. */
export interface SiteHost {
  name: string;
  /** Without it, the site's. */
  domain?: string;
  address: string;
  mac: string | null;
}

/** What the files of a site are written from. */
export interface SitePlan {
  name: string;
  domain: string;
  segments: readonly Segment[];
  hosts: readonly SiteHost[];
}

/**
 * The plan, when what is written of it as it stands is plain: names are made plain where they are written, addresses and domains
 * are not. No stored document holds another one; nothing is written of it all the same.
 */
export function writable<T extends Partial<SitePlan>>(plan: T): T {
  const values = (plan.segments ?? []).map(({ name: _, purpose: __, ...rest }) => rest);
  const segments = values.map((s) => ({
    ...s,
    reservations: s.reservations.map((r) => ({ ...r, name: "" })),
  }));
  const [unseen] = unseenTexts({ domain: plan.domain ?? "", segments });
  if (unseen !== undefined)
    throw new Error(
      `No file is generated, because a text of the site contains control characters: ${unseen}`,
    );
  return plan;
}

/** A name as a label of a host name: "Rack A power strip" becomes "rack-a-power-strip"; null where nothing of it is left. */
export function labelOf(text: string): string | null {
  const label = text
    .normalize("NFKD")
    .replace(/\p{M}/gu, "")
    .toLowerCase()
    .replace(/[^a-z\d]+/g, "-")
    .slice(0, 63)
    .replace(/^-+|-+$/g, "");
  return isLabel(label) ? label : null;
}

/** A host that can be written: its label is one, and its address too. */
export interface NamedHost {
  label: string;
  domain: string;
  address: string;
  mac: string | null;
}

/** The hosts that have a name which can be written, by address; of two with one name and address one. */
export function namedHosts(plan: SitePlan): NamedHost[] {
  const all = plan.hosts.flatMap((h): NamedHost[] => {
    const label = labelOf(h.name);
    const domain = h.domain || plan.domain;
    if (label === null || !isAddress(h.address) || (domain !== "" && !isDomain(domain))) return [];
    return [{ label, domain: domain.toLowerCase(), address: h.address, mac: h.mac?.toLowerCase() ?? null }];
  });
  const sorted = all.sort((a, b) => order(a).localeCompare(order(b)));
  return [...new Map(sorted.map((h) => [`${h.label} ${h.domain} ${addressSortKey(h.address)}`, h])).values()];
}

const order = (h: NamedHost): string => `${addressSortKey(h.address)} ${h.label}`;

export const fullName = ({ label, domain }: Pick<NamedHost, "label" | "domain">): string =>
  domain ? `${label}.${domain}` : label;
