import type { Answer } from "@/contract";
import {
  addressText,
  readNetworkText,
  writeAddressTable,
  writeCableTable,
  writeDnsmasq,
  writeHosts,
  writeKea,
  writeKea6,
  writeKnownHosts,
  writePortTable,
  writeReverseZones,
  writeSshConfig,
  writeZone,
  type SiteHost,
  type SitePlan,
  type WrittenFile,
} from "@/core/network";
import type { Problem } from "@/core/result";
import { endNames, offersFrom, takenOver, type Known, type Offer, type Site } from "@/core/site";
import { buildRows, claimRows, machineRows, siteRows } from "@/db";
import { no, STALE, yes } from "./answer";
import type { Desk } from "./desk";

/** A file of a site with what reads it. */
export interface SiteFile extends WrittenFile {
  reader: string;
}

type Planned = Awaited<ReturnType<typeof buildRows.hostsAt>>;

/** All that has a name and an address at a site: machines by their last sheet, things, and cards with a reservation. */
function sitePlan(site: Site, planned: Planned): SitePlan {
  const hosts: SiteHost[] = [
    ...planned.map(({ school, hostKeys: _, ...host }) => ({
      ...host,
      mac: school === "reserved" ? host.mac : null,
    })),
    ...site.devices.map((d) => ({ name: d.name, address: d.address, mac: null })),
    ...site.segments
      .flatMap((s) => s.reservations)
      .map((r) => ({ name: r.name, address: r.address, mac: r.mac })),
  ];
  return { name: site.name, domain: site.domain, segments: site.segments, hosts };
}

/** The files that follow from a site's plan. The serial of its zones is the number of its saves. */
export async function siteFiles({ db }: Desk, id: string): Promise<{ site: Site; files: SiteFile[] } | null> {
  const row = await siteRows.one(db, id);
  if (!row) return null;
  const { site, version } = row;
  const [planned, machines] = await Promise.all([buildRows.hostsAt(db, id), machineRows.portsAt(db, id)]);
  const plan = sitePlan(site, planned);
  const known = writeKnownHosts(plan, new Map(planned.map((p) => [p.address, p.hostKeys])));
  const of = (reader: string, ...files: (WrittenFile | null)[]): SiteFile[] =>
    files.flatMap((f) => (f ? [{ ...f, reader }] : []));
  const directory = { devices: site.devices, machines };
  return {
    site,
    files: [
      ...of("dnsmasq", writeDnsmasq(plan)),
      ...of("Kea", writeKea(plan), writeKea6(plan)),
      ...of("every system", writeHosts(plan)),
      ...of("BIND", writeZone(plan, version), ...writeReverseZones(plan, version)),
      ...of("ssh", writeSshConfig(plan), known.text === "" ? null : known),
      ...of("spreadsheet", writeAddressTable(plan), writePortTable(site)),
      ...of(
        "spreadsheet",
        writeCableTable(site.cables, (end) => endNames(directory, end)),
      ),
    ],
  };
}

/** What is read of a text for a site, row by row, with what would be changed. */
export interface TakePreview {
  format: string;
  offers: Offer[];
  problems: Problem[];
  /** Its last line, where that has no end and may be cut off. */
  openLine: number | null;
  /** The version of the site that it was compared with. */
  version: number;
}

async function read(desk: Desk, id: string, text: string, machine: string) {
  const row = await siteRows.one(desk.db, id);
  const got = readNetworkText(text);
  if (!row || !got.ok) return { row, got, known: null };
  const [takers, machines] = await Promise.all([
    claimRows.takersAt(desk.db, id),
    machineRows.portsAt(desk.db, id),
  ]);
  const known: Known = {
    takers: new Map(takers.map((t) => [addressText(t.key), t.what])),
    machine: machines.find((m) => m.name === machine) ?? null,
    newId: (what) => `${what}-${desk.newId("n")}`,
  };
  return { row, got, known };
}

/** Reads a text for a site and compares it with the plan; nothing is changed. */
export async function previewTaking(
  desk: Desk,
  id: string,
  text: string,
  machine: string,
): Promise<Answer<TakePreview>> {
  const { row, got, known } = await read(desk, id, text, machine);
  if (!row) return no("This site no longer exists.");
  if (!got.ok || !known) return { ok: false, problems: got.ok ? [] : got.problems };
  const { format, rows, problems, openLine } = got.value;
  return yes({ format, problems, openLine, version: row.version, offers: offersFrom(row.site, rows, known) });
}

/** Takes the rows on some lines of a text over into a site, as it stood when they were shown. */
export async function takeOver(
  desk: Desk,
  id: string,
  version: number,
  text: string,
  machine: string,
  chosen: readonly number[],
): Promise<Answer<number>> {
  const { row, got, known } = await read(desk, id, text, machine);
  if (!row) return no("This site no longer exists.");
  if (!got.ok || !known) return { ok: false, problems: got.ok ? [] : got.problems };
  if (row.version !== version) return no(STALE);
  const wanted = new Set(chosen);
  const rows = got.value.rows.filter((_, i) => wanted.has(i));
  const next = takenOver(row.site, rows, known);
  return (await desk.write((tx) => siteRows.update(tx, id, version, next, desk.stamp())))
    ? yes(rows.length)
    : no(STALE);
}
