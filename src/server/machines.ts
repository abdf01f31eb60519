import type { Answer } from "@/contract";
import { homeZone } from "./sites";
import { standOf, wayTo } from "@/core/sheet";
import { numberFindings, runChecks, type PlacedFinding } from "@/core/finding";
import {
  cameFrom,
  compareDelivery,
  emptyMachine,
  MACHINE_MESSAGES,
  MACHINE_SHEET_CHECKS,
  placeDrive,
  registerKey,
  typedSchema,
  writeCsv,
  type CircuitState,
  type DrivePast,
  type MachineDocument,
} from "@/core/machine";
import { identityClaims, rivalsAmong } from "@/core/claims";
import { circuitState } from "@/core/energy";
import { dayAt, type Site } from "@/core/site";
import { formatBinaryBytes, dayIn } from "@/core/units";
import {
  buildRows,
  claimRows,
  driveRows,
  machineRows,
  pictureRows,
  readingRows,
  runRows,
  siteRows,
  type Db,
} from "@/db";
import { no, STALE, yes } from "./answer";
import type { Desk } from "./desk";

export type MachineRow = NonNullable<Awaited<ReturnType<typeof machineRows.one>>>;

/** Machines as the list shows them, each with what it is becoming and the next step of that. */
export async function listMachines(desk: Desk) {
  const { db } = desk;
  const [rows, sites, builds] = await Promise.all([
    machineRows.listed(db),
    siteRows.all(db),
    buildRows.listed(db),
  ]);
  const siteNames = new Map(sites.map((s) => [s.id, s.site.name]));
  // Newest sheet first in the list; of a Map's equal keys the last stands, so it is filled from the oldest on.
  const newest = new Map(builds.toReversed().map((b) => [b.machineId, b]));
  return rows.map((m) => {
    const build = newest.get(m.id) ?? null;
    const run = build?.run ?? null;
    return {
      ...m,
      site: siteNames.get(m.siteId) ?? "",
      build,
      next: build ? standOf(build, run) : "",
      href: build ? wayTo(build.id, run) : "",
    };
  });
}

const LIST_COLUMNS = [
  "name",
  "site",
  "maker",
  "model",
  "serial",
  "asset tag",
  "role",
  "place",
  "controller address",
  "cores",
  "memory",
  "drives",
  "ports",
  "health",
  "becoming",
  "last inventory",
] as const;

/** The list of machines as CSV; it reads back as a list (computed columns are passed over then). */
export async function machineListCsv(desk: Desk): Promise<string> {
  const [machines, zone] = await Promise.all([listMachines(desk), homeZone(desk)]);
  return writeCsv(
    LIST_COLUMNS,
    machines.map(({ name, site, serial, summary: s, build }) => [
      name,
      site,
      s.maker,
      s.model,
      serial ?? "",
      s.assetTag,
      s.role,
      s.place,
      s.controller,
      s.cores === null ? "" : String(s.cores),
      s.memoryBytes === null ? "" : formatBinaryBytes(s.memoryBytes),
      String(s.drives),
      String(s.ports),
      s.health,
      build?.subject ?? "",
      s.readAt ? dayIn(s.readAt, zone) : "",
    ]),
  );
}

/** The keys by which the drive register knows the drives of a machine. */
export const keysOfDrives = ({ document }: Pick<MachineRow, "document">): string[] =>
  document.facts.drives.flatMap((d) => registerKey(d) ?? []);

/** What the drive register knows of the drives of a machine: where they came from, and who else claims them. */
export function drivePastsAmong(
  rows: readonly driveRows.DriveRow[],
  machine: Pick<MachineRow, "id" | "document">,
): DrivePast[] {
  const keys = new Map(machine.document.facts.drives.map((d) => [registerKey(d) ?? "", d.id]));
  keys.delete("");
  return rows.flatMap(({ key, entry }) => {
    const driveId = keys.get(key);
    if (driveId === undefined) return [];
    const seat = entry.state === "in a machine" ? entry.stays.at(-1) : undefined;
    const elsewhere = seat && seat.machineId !== machine.id;
    const before = elsewhere ? null : cameFrom(entry);
    return {
      driveId,
      cameFrom: before?.machine ?? null,
      hoursAtMove: before?.hours ?? null,
      alsoIn: elsewhere ? seat.machine : null,
    };
  });
}

/** Load of the circuits that some machines hang on, from the readings of all machines on them; by machine. */
export async function circuitsOf(
  db: Db,
  machines: readonly Pick<MachineRow, "id" | "document" | "siteId">[],
  sites: ReadonlyMap<string, Site>,
): Promise<Map<string, CircuitState>> {
  const hung = machines.flatMap(({ id, document, siteId }) => {
    const circuit = sites.get(siteId)?.circuits.find((c) => c.name === document.typed.circuit);
    return circuit ? [{ id, siteId, circuit }] : [];
  });
  if (hung.length === 0) return new Map();
  const members = await claimRows.onCircuits(
    db,
    hung.map((h) => h.circuit.name),
  );
  const readings = await readingRows.byMachine(
    db,
    members.map((m) => m.id),
  );
  return new Map(
    hung.map(({ id, siteId, circuit }) => [
      id,
      circuitState(
        circuit,
        members
          .filter((m) => m.siteId === siteId && m.circuit === circuit.name)
          .map((m) => ({ ...m, readings: readings.get(m.id) ?? [] })),
      ),
    ]),
  );
}

/** Load of the circuit that one machine hangs on. */
export const circuitOf = async (
  db: Db,
  machine: Pick<MachineRow, "id" | "document" | "siteId">,
  site: Site | null,
): Promise<CircuitState | null> =>
  (await circuitsOf(db, [machine], new Map(site ? [[machine.siteId, site]] : []))).get(machine.id) ?? null;

/** What the rules say about a machine as it stands, without any build. */
export async function machineFindings(
  desk: Desk,
  machine: MachineRow,
  site: Site | null,
): Promise<PlacedFinding[]> {
  const { db } = desk;
  const at = desk.now();
  const asked = identityClaims(machine.document);
  const asking = { buildId: null, machineId: machine.id, siteId: machine.siteId };
  const context = {
    now: at,
    today: dayAt(site, at),
    timeZone: site?.timeZone ?? "UTC",
    name: machine.name,
    document: machine.document,
    rivals: rivalsAmong(await claimRows.holders(db, asked), asked, asking),
    pasts: drivePastsAmong(await driveRows.withKeys(db, keysOfDrives(machine)), machine),
    circuit: await circuitOf(db, machine, site),
  };
  const order = { stop: 0, caution: 1, note: 2 };
  return numberFindings(runChecks(MACHINE_SHEET_CHECKS, MACHINE_MESSAGES, context), []).sort(
    (a, b) => order[a.severity] - order[b.severity],
  );
}

export async function machineView(desk: Desk, id: string) {
  const { db } = desk;
  const machine = await machineRows.one(db, id);
  if (!machine) return null;
  const site = await siteRows.ifSound(db, machine.siteId);
  const [imports, builds, waiting, findings, pictures] = await Promise.all([
    machineRows.importsOf(db, id),
    buildRows.marks(db, { machineId: id }),
    machineRows.waitingBundles(db, id),
    machineFindings(desk, machine, site?.site ?? null),
    pictureRows.of(db, id),
  ]);
  const runs = await runRows.ofBuilds(
    db,
    builds.map((b) => b.id),
  );
  return {
    machine,
    site,
    imports,
    findings,
    pictures,
    delivery: compareDelivery(machine.document),
    builds: builds.map((b) => ({ ...b, run: runs.get(b.id) ?? null })),
    waiting: waiting.map(({ hash, receivedAt, bundle }) => ({
      hash,
      receivedAt,
      name: `posted ${receivedAt}`,
      text: bundle,
    })),
  };
}

export type MachineView = NonNullable<Awaited<ReturnType<typeof machineView>>>;

/** Changes a machine's document by a pure step, guarded by the version that the change was based on. */
async function changeMachine(
  desk: Desk,
  machineId: string,
  version: number,
  step: (document: MachineDocument) => Answer<MachineDocument>,
): Promise<Answer<number>> {
  const { db, write } = desk;
  const machine = await machineRows.one(db, machineId);
  if (!machine) return no("This machine no longer exists.");
  const next = step(machine.document);
  if (!next.ok) return next;
  const saved = await write((tx) =>
    machineRows.update(tx, { ...machine, version, document: next.value }, desk.stamp()),
  );
  return saved ? yes(version + 1) : no(STALE);
}

/** Puts a drive in its bay by hand, or takes that back. */
export const placeInBay = (
  desk: Desk,
  machineId: string,
  version: number,
  driveId: string,
  bay: string | null,
): Promise<Answer<number>> =>
  changeMachine(desk, machineId, version, (document) =>
    document.facts.drives.some((d) => d.id === driveId)
      ? yes(placeDrive(document, driveId, bay, desk.now(), desk.actor))
      : no("This drive is no longer part of the machine."),
  );

const PICTURE_TYPES = ["image/png", "image/jpeg", "image/webp"];
const PICTURE_BYTES = 6_000_000;

export async function addPicture(
  desk: Desk,
  machineId: string,
  picture: { type: string; caption: string; bytes: Buffer },
): Promise<Answer<string>> {
  const { db, write } = desk;
  if (!(await machineRows.one(db, machineId))) return no("This machine no longer exists.");
  if (!PICTURE_TYPES.includes(picture.type) || !looksLike(picture.type, picture.bytes))
    return no("Unsupported picture format. Use PNG, JPEG or WebP.");
  if (picture.bytes.length > PICTURE_BYTES)
    return no("The limit for a picture is 6 MB. Reduce its size first.");
  const id = desk.newId("p");
  await write((tx) =>
    pictureRows.insert(tx, {
      id,
      machineId,
      at: desk.now(),
      by: desk.actor,
      ...picture,
      caption: picture.caption.slice(0, 200),
    }),
  );
  return yes(id);
}

/** The first bytes must be what the type says: a page dressed up as a picture is never served as one. */
function looksLike(type: string, bytes: Buffer): boolean {
  const head = bytes.subarray(0, 12);
  if (type === "image/png") return head.subarray(0, 4).equals(Buffer.from([0x89, 0x50, 0x4e, 0x47]));
  if (type === "image/jpeg") return head.subarray(0, 3).equals(Buffer.from([0xff, 0xd8, 0xff]));
  return head.toString("latin1", 0, 4) === "RIFF" && head.toString("latin1", 8, 12) === "WEBP";
}

export const onePicture = async (desk: Desk, id: string) => pictureRows.one(desk.db, id);

export async function removePicture(desk: Desk, id: string): Promise<void> {
  await desk.write((tx) => pictureRows.remove(tx, id, desk.stamp()));
}

/** A sheet for a twin: decisions (place, role, keys, bay layout, circuit) are taken along, facts never. */
export async function cloneMachine(desk: Desk, machineId: string, name: string): Promise<Answer<string>> {
  const { db, write } = desk;
  const machine = await machineRows.one(db, machineId);
  if (!machine) return no("This machine no longer exists.");
  if (name.trim() === "") return no("Enter the name of the new machine, as on its front.");
  if (await machineRows.nameIsTaken(db, machine.siteId, name.trim()))
    return no(`This site already has a machine with the name ${name.trim()}.`);
  const id = desk.newId("m");
  const { typed, facts } = machine.document;
  const document = {
    ...emptyMachine(),
    typed: typedSchema.parse({
      ...typed,
      defects: [],
      firmware: [],
      placed: {},
      expected: typed.expected ? { ...typed.expected, serial: null } : null,
    }),
  };
  if (facts.controller?.present !== undefined)
    document.facts.controller = {
      present: facts.controller.present,
      virtualMedia: facts.controller.virtualMedia ?? "unknown",
    };
  await write((tx) => machineRows.insert(tx, id, machine.siteId, name.trim(), document, desk.stamp()));
  return yes(id);
}
