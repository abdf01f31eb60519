import { isTimeZone } from "../identity";
import { driveLook, likelyPort, onlyDrive, ownAddress, visibleDrives, type Facts } from "../machine";
import { contains, isAddress, networkOf } from "../network";
import { emptySite, type Site } from "./site";

/** Addresses of a resolver on the machine itself say nothing of the network. */
const isOwn = (address: string): boolean => address.startsWith("127.") || address === "::1";

/** The network in which a machine was read, with what its system knew of it; none where it had no address. */
function segmentOf({ system }: Facts, own: ReturnType<typeof ownAddress>): Site["segments"] {
  const prefix = own && networkOf(own.address, own.prefixLength);
  if (!prefix) return [];
  const gateway = system?.gateway ?? null;
  return [
    {
      id: "segment-1",
      name: "LAN",
      purpose: "management",
      vlan: null,
      prefix,
      gateway: gateway && contains(prefix, gateway) ? gateway : null,
      nameServers: (system?.nameServers ?? []).filter((a) => isAddress(a) && !isOwn(a)),
      mtu: null,
      dhcp: [],
      servers: null,
      reservations: [],
    },
  ];
}

/**
 * The site of a machine that is the first of its place: its network, time zone, locale and keyboard as the machine was
 * found to have them. Where its address was lent, this site lends addresses. What was not read stays as it is by default.
 */
export function proposedSite(name: string, facts: Facts): Site {
  const site = emptySite(name);
  const { timeZone, locale, keyboard } = facts.system ?? {};
  const own = ownAddress(facts);
  return {
    ...site,
    timeZone: timeZone && isTimeZone(timeZone) ? timeZone : site.timeZone,
    locale: locale || site.locale,
    keyboard: keyboard || site.keyboard,
    addressSchool: own?.dynamic ? "reserved" : "fixed",
    segments: segmentOf(facts, own),
  };
}

/** One thing that a first sheet takes over without being asked, and whether it was read or is what Derrick takes where nothing is. */
export interface Proposal {
  what: string;
  value: string;
  isRead: boolean;
}

/** What a sheet for a machine that is the first of its place begins with, in words. */
export function proposals(facts: Facts): Proposal[] {
  const site = proposedSite("first", facts);
  const [segment] = site.segments;
  const own = ownAddress(facts);
  const port = likelyPort(facts);
  const drive = onlyDrive(facts);
  const drives = visibleDrives(facts).length;
  const line = (what: string, read: string | null | undefined, otherwise: string): Proposal => ({
    ...{ what, value: read || otherwise, isRead: Boolean(read) },
  });
  return [
    line(
      "Drive",
      drive && `${driveLook(drive)}: the only one`,
      drives === 0 ? "none collected" : `to choose: ${drives}`,
    ),
    line(
      "Port",
      port && `${port.seenAs} ${port.mac}, link ${port.link}`,
      "no port with a link was collected",
    ),
    line(
      "Address",
      own &&
        `${own.address}/${own.prefixLength}, ${own.dynamic ? "leased by DHCP: add a reservation" : "static"}`,
      "to enter",
    ),
    line(
      "Network",
      segment &&
        [
          segment.prefix,
          segment.gateway && `gateway ${segment.gateway}`,
          segment.nameServers.length > 0 && `DNS servers ${segment.nameServers.join(", ")}`,
        ]
          .filter(Boolean)
          .join(", "),
      "to enter",
    ),
    line("Time zone", facts.system?.timeZone && site.timeZone, `${site.timeZone} (default)`),
    line("Keyboard", facts.system?.keyboard, `${site.keyboard} (default)`),
    line("Locale", facts.system?.locale, `${site.locale} (default)`),
  ];
}
