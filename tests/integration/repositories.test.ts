import { beforeAll, describe, expect, it } from "vitest";
import { machineClaims } from "@/core/claims";
import { compatNoteSchema, type CompatNote } from "@/core/compat";
import { imageSchema, type Image } from "@/core/image";
import { emptyMachine, registerEntrySchema, type MachineDocument, type RegisterEntry } from "@/core/machine";
import { emptySheet, sheetClaims, type Sheet } from "@/core/sheet";
import { emptySite, type Site } from "@/core/site";
import {
  buildRows,
  changeRows,
  claimRows,
  compatRows,
  DamagedError,
  driveRows,
  imageRows,
  machineRows,
  siteRows,
  UnsoundError,
  type Db,
  type Stamp,
  type Tx,
} from "@/db";
import { sql } from "drizzle-orm";
import type { Desk } from "@/server/desk";
import { aBuild } from "../support/builds";
import { ownDatabase } from "../support/database";
import { desk } from "../support/desk";

ownDatabase();
const FIRST: Stamp = { at: "2026-11-20T08:00:00.000Z", by: "J. Pell" };
const THEN: Stamp = { at: "2026-11-21T09:00:00.000Z", by: "M. Arkle" };

/** One kind of document behind one door, so that every repository is asked the same. */
interface Shelf<D> {
  kind: "site" | "machine" | "image" | "build" | "drive" | "note";
  table: string;
  column: string;
  key: string;
  made: D;
  /** Another document of the kind, and the one field that differs. */
  changed: D;
  field: string;
  unsound: unknown;
  put(tx: Tx, id: string, document: D, stamp: Stamp): Promise<void>;
  save(tx: Tx, id: string, version: number, document: D, stamp: Stamp): Promise<boolean>;
  get(db: Db, id: string): Promise<{ version: number; document: D } | null>;
  all(db: Db): Promise<{ document: D }[]>;
}

const site = emptySite("Works");
const image: Image = aBuild().image!;
const machine: MachineDocument = { ...emptyMachine(), notes: "first" };
const entry: RegisterEntry = registerEntrySchema.parse({
  schemaVersion: 1,
  label: "blue",
  media: "usb",
  sizeBytes: 8e9,
  state: "on the shelf",
});
const note: CompatNote = compatNoteSchema.parse({
  ...{
    schemaVersion: 1,
    profile: "cairn-hypervisor",
    version: "9",
    verdict: "works",
    by: "J. Pell",
    at: FIRST.at,
  },
  subject: { kind: "drive model", value: "Alder 480" },
});
const sheet: Sheet = { ...emptySheet(), subject: "first" };

const shelf = <D>(one: Shelf<D>): Shelf<unknown> => one as Shelf<unknown>;
const SHELVES: Shelf<unknown>[] = [
  shelf<Site>({
    ...{
      kind: "site",
      table: "sites",
      column: "document",
      key: "id",
      field: "room",
      unsound: { ...site, name: "" },
    },
    ...{ made: site, changed: { ...site, room: "cellar" } },
    put: (tx, id, d, stamp) => siteRows.insert(tx, id, d, stamp),
    save: (tx, id, v, d, stamp) => siteRows.update(tx, id, v, d, stamp),
    get: async (db, id) => rename(await siteRows.one(db, id), "site"),
    all: async (db) => (await siteRows.all(db)).map((r) => ({ document: r.site })),
  }),
  shelf<MachineDocument>({
    ...{
      kind: "machine",
      table: "machines",
      column: "document",
      key: "id",
      field: "notes",
      unsound: { ...machine, notes: 7 },
    },
    ...{ made: machine, changed: { ...machine, notes: "second" } },
    put: (tx, id, d, stamp) => machineRows.insert(tx, id, "s-home", id, d, stamp),
    save: (tx, id, version, document, stamp) =>
      machineRows.update(tx, { id, name: id, version, document }, stamp),
    get: async (db, id) => machineRows.one(db, id),
    all: (db) => machineRows.all(db),
  }),
  shelf<Image>({
    ...{
      kind: "image",
      table: "images",
      column: "document",
      key: "id",
      field: "notes",
      unsound: { ...image, sizeBytes: -1 },
    },
    ...{ made: image, changed: imageSchema.parse({ ...image, notes: "second" }) },
    put: (tx, id, d, stamp) => imageRows.insert(tx, id, d, stamp),
    save: (tx, id, v, d, stamp) => imageRows.update(tx, id, v, d, stamp),
    get: async (db, id) => rename(await imageRows.one(db, id), "image"),
    all: async (db) => (await imageRows.all(db)).map((r) => ({ document: r.image })),
  }),
  shelf<Sheet>({
    ...{
      kind: "build",
      table: "builds",
      column: "sheet",
      key: "id",
      field: "subject",
      unsound: { ...sheet, subject: 7 },
    },
    ...{ made: sheet, changed: { ...sheet, subject: "second" } },
    put: async (tx, id, d, stamp) =>
      buildRows.insert(tx, { id, number: await buildRows.nextNumber(tx), sheet: d }, stamp),
    save: (tx, id, v, d, stamp) => buildRows.save(tx, id, v, d, [], stamp),
    get: async (db, id) => rename(await buildRows.one(db, id), "sheet"),
    all: async (db) => (await buildRows.all(db)).map((r) => ({ document: r.sheet })),
  }),
  shelf<RegisterEntry>({
    ...{
      kind: "drive",
      table: "drives",
      column: "document",
      key: "key",
      field: "label",
      unsound: { ...entry, sizeBytes: "big" },
    },
    ...{ made: entry, changed: { ...entry, label: "red" } },
    put: (tx, id, d, stamp) => driveRows.put(tx, id, d, null, stamp),
    save: (tx, id, v, d, stamp) => driveRows.update(tx, id, v, d, stamp),
    get: async (db, id) => rename(await driveRows.one(db, id), "entry"),
    all: async (db) => (await driveRows.all(db)).map((r) => ({ document: r.entry })),
  }),
  shelf<CompatNote>({
    ...{
      kind: "note",
      table: "compat_notes",
      column: "document",
      key: "id",
      field: "condition",
      unsound: { ...note, verdict: "maybe" },
    },
    ...{ made: note, changed: { ...note, condition: "only in slot 2" } },
    put: (tx, id, d, stamp) => compatRows.insert(tx, id, d, stamp),
    save: (tx, id, v, d, stamp) => compatRows.update(tx, id, v, d, stamp),
    get: async (db, id) => rename(await compatRows.one(db, id), "note"),
    all: async (db) => (await compatRows.all(db)).map((r) => ({ document: r.note })),
  }),
];

function rename<R extends { version: number }, K extends keyof R>(row: R | null, key: K) {
  return row && { version: row.version, document: row[key] };
}

let at: Desk;
beforeAll(async () => {
  at = await desk();
  await at.write((tx) => siteRows.insert(tx, "s-home", emptySite("Home"), FIRST));
});

describe.each(SHELVES)("the repository of $kind documents", (own) => {
  const id = `${own.kind}-1`;
  const stored = () => own.get(at.db, id);

  it("keeps what it is given, gives it back, and writes down who and when", async () => {
    expect(await stored()).toBeNull();
    await at.write((tx) => own.put(tx, id, own.made, FIRST));
    expect(await stored()).toMatchObject({ version: 1, document: own.made });
    expect(await changeRows.of(at.db, own.kind, id)).toMatchObject([{ version: 1, ...FIRST, edits: [] }]);
    expect((await own.all(at.db)).map((r) => r.document)).toContainEqual(own.made);
  });

  it("gives one object for one text, which nobody can change for the others", async () => {
    const [one, two] = [await stored(), await stored()];
    expect(one!.document).toBe(two!.document);
    expect(() => Object.assign(one!.document as object, { schemaVersion: 9 })).toThrow();
  });

  it("saves on the version that stands, with the field that differs", async () => {
    expect(await at.write((tx) => own.save(tx, id, 1, own.changed, THEN))).toBe(true);
    expect(await stored()).toMatchObject({ version: 2, document: own.changed });
    const [last] = await changeRows.of(at.db, own.kind, id);
    expect(last).toMatchObject({ version: 2, ...THEN });
    expect(last!.edits.map((e) => e.path)).toEqual([own.field]);
  });

  it("refuses to save on an older version, and on one that is not there, and writes nothing", async () => {
    const before = await changeRows.last(at.db);
    expect(await at.write((tx) => own.save(tx, id, 1, own.made, THEN))).toBe(false);
    expect(await at.write((tx) => own.save(tx, "nowhere", 1, own.made, THEN))).toBe(false);
    expect(await stored()).toMatchObject({ version: 2, document: own.changed });
    expect(await changeRows.last(at.db)).toBe(before);
  });

  it("of ten saves at once on one version lets one through", async () => {
    const saves = Array.from({ length: 10 }, () => at.write((tx) => own.save(tx, id, 2, own.made, FIRST)));
    expect((await Promise.all(saves)).filter(Boolean)).toHaveLength(1);
    expect((await stored())!.version).toBe(3);
  });

  it("writes nothing that would not be read again, and nothing of what was written beside it", async () => {
    const work = at.write(async (tx) => {
      await own.put(tx, `${own.kind}-2`, own.made, FIRST);
      await own.save(tx, id, 3, own.unsound, THEN);
    });
    await expect(work).rejects.toThrow(UnsoundError);
    expect(await own.get(at.db, `${own.kind}-2`)).toBeNull();
    expect((await stored())!.version).toBe(3);
  });

  it("tells a damaged row by its name, and leaves it out of lists", async () => {
    const spoil = (text: string) =>
      at.db.run(
        sql`UPDATE ${sql.identifier(own.table)} SET ${sql.identifier(own.column)} = ${text} WHERE ${sql.identifier(own.key)} = ${id}`,
      );
    const sound = (await own.all(at.db)).length;
    await spoil('{"schemaVersion": "one"}');
    await expect(stored()).rejects.toThrow(DamagedError);
    await spoil("no JSON at all");
    await expect(stored()).rejects.toThrow(/damaged: the document: not JSON/);
    expect(await own.all(at.db)).toHaveLength(sound - 1);
    await spoil(JSON.stringify(own.made));
    expect((await stored())!.document).toEqual(own.made);
  });
});

it("claims follow the documents that make them, in the same write", async () => {
  const of = async (ownerId: string) =>
    (
      await at.db.all<{ kind: string; key: string }>(
        sql`SELECT kind, key FROM claims WHERE owner_id = ${ownerId}`,
      )
    )
      .map((c) => `${c.kind} ${c.key}`)
      .sort();
  const lines = (claims: { kind: string; key: string }[]) => claims.map((c) => `${c.kind} ${c.key}`).sort();
  const known: MachineDocument = {
    ...machine,
    facts: { ...machine.facts, chassis: { serial: "OST-77" } as never },
  };
  await at.write((tx) => machineRows.insert(tx, "m-claims", "s-home", "claims-1", machine, FIRST));
  await at.write((tx) =>
    machineRows.update(tx, { id: "m-claims", name: "claims-1", version: 1, document: known }, THEN),
  );
  expect(await of("m-claims")).toEqual(lines(machineClaims(known, "claims-1")));
  expect(
    (
      await claimRows.holders(at.db, [
        { kind: "serial", key: "ost-77" },
        { kind: "serial", key: "OST-77" },
      ])
    ).map((h) => h.ownerId),
  ).toEqual(["m-claims"]);
  const named: Sheet = { ...sheet, answers: { ...sheet.answers, hostName: "claims-2" } };
  await at.write((tx) => buildRows.insert(tx, { id: "b-claims", number: "B-9001", sheet: named }, FIRST));
  expect(await of("b-claims")).toEqual(lines(sheetClaims(named, "B-9001")));
});
