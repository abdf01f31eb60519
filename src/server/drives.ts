import type { Answer, DriveFile, RegisterLine } from "@/contract";
import { homeZone } from "./sites";
import { dayIn } from "@/core/units";
import {
  layOnShelf,
  recordWipe,
  recordWriting,
  registerKey,
  registerEntrySchema,
  whereWords,
  writeCsv,
  judgeDrive,
  wearWords,
  type Drive,
  type RegisterEntry,
  type Wipe,
} from "@/core/machine";
import { driveRows, imageRows } from "@/db";
import { no, STALE, yes } from "./answer";
import type { Desk } from "./desk";

const toLine = ({ key, version, entry, machineId }: driveRows.DriveRow): RegisterLine => ({
  key,
  version,
  entry,
  where: whereWords(entry),
  machineId,
  ...judgeDrive(entry),
  wear: wearWords(entry),
});

const ORDER = { failing: 0, watch: 1, "not known": 2, good: 3 } as const;

/** Every drive, stick and card, those that need a look first. */
export async function driveRegister(desk: Desk): Promise<RegisterLine[]> {
  const rows = await driveRows.all(desk.db);
  return rows
    .map(toLine)
    .sort(
      (a, b) =>
        ORDER[a.verdict] - ORDER[b.verdict] ||
        a.where.localeCompare(b.where, "en", { numeric: true }) ||
        a.key.localeCompare(b.key),
    );
}

export async function registerLine(desk: Desk, key: string): Promise<RegisterLine | null> {
  const row = await driveRows.one(desk.db, key);
  return row ? toLine(row) : null;
}

/** The register's lines of drives of a machine, by the ids that the machine's facts give them. */
export async function driveFiles(desk: Desk, drives: readonly Drive[]): Promise<Record<string, DriveFile>> {
  const keyed = drives.flatMap((drive) => {
    const key = registerKey(drive);
    return key ? [{ drive, key }] : [];
  });
  const [rows, spares] = await Promise.all([
    driveRows.withKeys(
      desk.db,
      keyed.map((k) => k.key),
    ),
    driveRows.spares(desk.db),
  ]);
  const lines = new Map(rows.map((r) => [r.key, toLine(r)]));
  const standIns = (d: Drive): string[] =>
    spares
      .filter((s) => s.entry.media === d.media && s.entry.sizeBytes >= d.sizeBytes)
      .map((s) => `${s.entry.label || s.entry.model || s.key} …${s.key.slice(-6)}, ${whereWords(s.entry)}`);
  return Object.fromEntries(
    keyed.flatMap(({ drive, key }) => {
      const line = lines.get(key);
      return line ? [[drive.id, { ...line, spares: standIns(drive) }]] : [];
    }),
  );
}

export async function registerCsv(desk: Desk): Promise<string> {
  const [lines, zone] = await Promise.all([driveRegister(desk), homeZone(desk)]);
  return writeCsv(
    [
      "serial",
      "wwn",
      "label",
      "model",
      "media",
      "size bytes",
      "where",
      "health",
      "reasons",
      "hours",
      "contents",
      "last erased",
    ],
    lines.map(({ entry: e, where, verdict, reasons }) => [
      e.serial ?? "",
      e.wwn ?? "",
      e.label,
      e.model ?? "",
      e.media,
      String(e.sizeBytes),
      where,
      verdict,
      reasons.join("; "),
      e.health?.hours == null ? "" : String(e.health.hours),
      e.holds,
      e.wipes.at(-1) ? `${dayIn(e.wipes.at(-1)!.at, zone)} ${e.wipes.at(-1)?.method}` : "",
    ]),
  );
}

/** A stick, card or spare that no machine has told of yet. */
export async function addToRegister(
  desk: Desk,
  values: {
    label: string;
    serial: string;
    model: string;
    media: RegisterEntry["media"];
    sizeBytes: number;
    place: string;
    spare: boolean;
    holds: string;
  },
): Promise<Answer<string>> {
  const { db, write } = desk;
  const serial = values.serial.trim();
  if (serial === "" && values.label.trim() === "")
    return no("Enter a serial number, or at least a label on the device.");
  if (!(values.sizeBytes > 0)) return no("Enter the size in bytes, or with a unit, for example 8 GB.");
  const key = serial ? serial.toUpperCase() : `label ${values.label.trim()}`;
  if (await driveRows.one(db, key)) return no(`${serial || values.label} is already in the drive inventory.`);
  const entry = registerEntrySchema.safeParse({
    schemaVersion: 1,
    ...values,
    serial: serial || null,
    model: values.model.trim() || null,
    state: "on the shelf",
    stays: [],
  });
  if (!entry.success)
    return no(...entry.error.issues.slice(0, 3).map((i) => `${i.path.join(" ")}: ${i.message}`));
  await write((tx) => driveRows.put(tx, key, entry.data, null, desk.stamp()));
  return yes(key);
}

async function changeDrive(
  desk: Desk,
  key: string,
  version: number,
  step: (entry: RegisterEntry) => RegisterEntry,
): Promise<Answer<number>> {
  const { db, write } = desk;
  const row = await driveRows.one(db, key);
  if (!row) return no("This drive is no longer in the drive inventory.");
  const next = registerEntrySchema.safeParse(step(row.entry));
  if (!next.success)
    return no(...next.error.issues.slice(0, 3).map((i) => `${i.path.join(" ")}: ${i.message}`));
  const saved = await write((tx) => driveRows.update(tx, key, version, next.data, desk.stamp()));
  return saved ? yes(version + 1) : no(STALE);
}

/** Writes an erasure into the ledger: when, by whom, how, and what was on it. */
export const wipeDrive = (
  desk: Desk,
  key: string,
  version: number,
  method: Wipe["method"],
  remark: string,
): Promise<Answer<number>> =>
  changeDrive(desk, key, version, (entry) =>
    recordWipe(entry, { at: desk.now(), by: desk.actor, method, remark }),
  );

/** Writes down that a stick was written with an image of the shelf. */
export async function writeDrive(
  desk: Desk,
  key: string,
  version: number,
  writing: {
    imageId: string;
    written: NonNullable<RegisterEntry["written"]>;
    scheme: RegisterEntry["scheme"];
    compared: boolean;
  },
): Promise<Answer<number>> {
  const image = await imageRows.one(desk.db, writing.imageId);
  if (!image) return no("This image is no longer in the library.");
  return changeDrive(desk, key, version, (entry) =>
    recordWriting(entry, { ...writing, name: image.image.name, at: desk.now() }),
  );
}

export const shelveDrive = (
  desk: Desk,
  key: string,
  version: number,
  place: string,
  spare: boolean,
): Promise<Answer<number>> =>
  changeDrive(desk, key, version, (entry) => layOnShelf(entry, place.trim(), spare, desk.now()));

export const editDrive = (
  desk: Desk,
  key: string,
  version: number,
  part: Partial<Pick<RegisterEntry, "label" | "notes" | "holds" | "written" | "speedClass">>,
): Promise<Answer<number>> => changeDrive(desk, key, version, (entry) => ({ ...entry, ...part }));
