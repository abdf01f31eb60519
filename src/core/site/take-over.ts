import {
  addressKey,
  contains,
  deviceSchema,
  endKey,
  type Cable,
  type CableEnd,
  type NetworkRow,
  type Segment,
} from "../network";
import type { Site } from "./site";
import type { WiredMachine } from "./wiring-cells";

/** What is known of a site beside its document, when something is to be taken over into it. */
export interface Known {
  /** Who has an address: machines and sheets. */
  takers: ReadonlyMap<string, string>;
  /** The machine on which a table of cables was read. */
  machine: WiredMachine | null;
  newId(what: string): string;
}

/** A row that was read, with what it would change. */
export interface Offer {
  row: NetworkRow;
  state: "new" | "known" | "differs" | "not here";
  says: string;
}

const same = (a: string, b: string): boolean => (addressKey(a) ?? a) === (addressKey(b) ?? b);

const segmentFor = (site: Site, address: string): Segment | null =>
  site.segments.find((s) => contains(s.prefix, address)) ?? null;

const offer = (row: NetworkRow, state: Offer["state"], says: string): Offer => ({ row, state, says });

function reservationOffer(site: Site, row: NetworkRow & { kind: "reservation" }): Offer {
  const segment = segmentFor(site, row.address);
  const what = `${row.address} for ${row.mac}${row.name ? ` (${row.name})` : ""}`;
  if (!segment) return offer(row, "not here", `${what}: in none of the networks of the site`);
  const own = segment.reservations.find((r) => r.mac.toLowerCase() === row.mac);
  const other = segment.reservations.find((r) => same(r.address, row.address));
  if (own && same(own.address, row.address)) return offer(row, "known", `${what}: already reserved`);
  if (own) return offer(row, "differs", `${what}: the plan reserves ${own.address} for it`);
  if (other) return offer(row, "differs", `${what}: the plan reserves it for ${other.mac} (${other.name})`);
  return offer(row, "new", `${what}: add a reservation in ${segment.name}`);
}

function rangeOffer(site: Site, row: NetworkRow & { kind: "range" }): Offer {
  const segment = segmentFor(site, row.from);
  const what = `${row.from} to ${row.to}`;
  if (!segment || !contains(segment.prefix, row.to))
    return offer(row, "not here", `${what}: in none of the networks of the site`);
  if (segment.dhcp.some((r) => same(r.from, row.from) && same(r.to, row.to)))
    return offer(row, "known", `${what}: already planned`);
  return segment.dhcp.length > 0
    ? offer(
        row,
        "differs",
        `${what}: the DHCP range of ${segment.name} in the plan is ${segment.dhcp.map((r) => `${r.from} to ${r.to}`).join(", ")}`,
      )
    : offer(row, "new", `${what}: add a DHCP range in ${segment.name}`);
}

/** Who has an address by the plan: a machine or a sheet, a thing, a reservation. */
function holderOf(site: Site, address: string, known: Known): string | null {
  const device = site.devices.find((d) => d.address !== "" && same(d.address, address));
  const reserved = site.segments.flatMap((s) => s.reservations).find((r) => same(r.address, address));
  return known.takers.get(addressKey(address) ?? address) ?? device?.name ?? reserved?.name ?? null;
}

function hostOffer(site: Site, row: NetworkRow & { kind: "host" | "seen" }, known: Known): Offer {
  const called = row.kind === "host" ? row.name : row.mac;
  const what = `${row.address} is ${called}`;
  if (!segmentFor(site, row.address))
    return offer(row, "not here", `${what}: in none of the networks of the site`);
  const holder = holderOf(site, row.address, known);
  const short = called.split(".")[0]!.toLowerCase();
  if (holder === null)
    return row.kind === "seen"
      ? offer(row, "new", `${what}: not planned; add it as a device`)
      : offer(row, "new", `${what}: add it as a device`);
  return row.kind === "seen" || holder.toLowerCase().includes(short)
    ? offer(row, "known", `${what}: ${holder} in the plan`)
    : offer(row, "differs", `${what}: in the plan it is ${holder}`);
}

/** The two ends of a cable that was read: the machine's port and the thing's; null where the machine has no such port. */
function endsOf(site: Site, row: NetworkRow & { kind: "cable" }, { machine }: Known) {
  const port = machine?.ports.find((p) => p.seenAs === row.port);
  const device = site.devices.find((d) => d.name === row.device);
  return port ? { a: { mac: port.mac }, device, port: row.devicePort } : null;
}

const cableAt = (site: Site, end: CableEnd): Cable | undefined =>
  site.cables.find((c) => [c.a, c.b].some((e) => endKey(e) === endKey(end)));

function cableOffer(site: Site, row: NetworkRow & { kind: "cable" }, known: Known): Offer {
  const what = `${row.port} is connected to ${row.device} port ${row.devicePort}`;
  const ends = endsOf(site, row, known);
  if (!ends)
    return offer(
      row,
      "not here",
      `${what}: ${known.machine ? `${known.machine.name} has no port ${row.port}` : "choose the machine that it was collected on"}`,
    );
  const planned = cableAt(site, ends.a);
  if (!planned) return offer(row, "new", `${what}: add this cable${ends.device ? "" : " and the device"}`);
  const far = endKey(planned.a) === endKey(ends.a) ? planned.b : planned.a;
  const isSame =
    ends.device !== undefined && "device" in far && far.device === ends.device.id && far.port === ends.port;
  return isSame
    ? offer(row, "known", `${what}: as planned`)
    : offer(row, "differs", `${what}: in the plan the cable is connected elsewhere`);
}

/** What each row that was read would change at a site. Nothing is changed yet. */
export const offersFrom = (site: Site, rows: readonly NetworkRow[], known: Known): Offer[] =>
  rows.map((row) => {
    if (row.kind === "reservation") return reservationOffer(site, row);
    if (row.kind === "range") return rangeOffer(site, row);
    return row.kind === "cable" ? cableOffer(site, row, known) : hostOffer(site, row, known);
  });

function withReservation(site: Site, row: NetworkRow & { kind: "reservation" }): Site {
  const segment = segmentFor(site, row.address);
  return {
    ...site,
    segments: site.segments.map((s) =>
      s !== segment
        ? s
        : {
            ...s,
            reservations: [
              ...s.reservations.filter(
                (r) => r.mac.toLowerCase() !== row.mac && !same(r.address, row.address),
              ),
              { mac: row.mac, address: row.address, name: row.name || "unnamed" },
            ],
          },
    ),
  };
}

function withRange(site: Site, { from, to }: NetworkRow & { kind: "range" }): Site {
  const segment = segmentFor(site, from);
  const segments = site.segments.map((s) => (s === segment ? { ...s, dhcp: [...s.dhcp, { from, to }] } : s));
  return { ...site, segments };
}

function withHost(site: Site, row: NetworkRow & { kind: "host" | "seen" }, known: Known): Site {
  const name = row.kind === "host" ? row.name.split(".")[0]! : `seen as ${row.mac}`;
  const others = site.devices.map((d) =>
    d.address !== "" && same(d.address, row.address) ? { ...d, name } : d,
  );
  const isThere = site.devices.some((d) => d.address !== "" && same(d.address, row.address));
  const made = deviceSchema.parse({ id: known.newId("device"), name, address: row.address });
  return { ...site, devices: isThere ? others : [...others, made] };
}

function withCable(site: Site, row: NetworkRow & { kind: "cable" }, known: Known): Site {
  const ends = endsOf(site, row, known);
  if (!ends) return site;
  const device =
    ends.device ??
    deviceSchema.parse({ id: known.newId("device"), name: row.device, kind: "switch", address: row.address });
  const devices = ends.device ? site.devices : [...site.devices, device];
  const b: CableEnd = { device: device.id, port: ends.port };
  const taken = [endKey(ends.a), endKey(b)];
  const others = site.cables.filter((c) => ![c.a, c.b].some((e) => taken.includes(endKey(e))));
  const cable: Cable = { id: known.newId("cable"), a: ends.a, b, lengthMetres: null, label: "" };
  return { ...site, devices, cables: [...others, cable] };
}

/** The site with some rows taken over; what a row contradicts is replaced by what it says. */
export const takenOver = (site: Site, rows: readonly NetworkRow[], known: Known): Site =>
  rows.reduce((now, row) => {
    const [made] = offersFrom(now, [row], known);
    if (made?.state === "known" || made?.state === "not here") return now;
    if (row.kind === "reservation") return withReservation(now, row);
    if (row.kind === "range") return withRange(now, row);
    return row.kind === "cable" ? withCable(now, row, known) : withHost(now, row, known);
  }, site);
