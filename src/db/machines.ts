import { and, asc, desc, eq, inArray, isNotNull, isNull, sql } from "drizzle-orm";
import {
  judgeDrive,
  machineDocument,
  presentDrives,
  type FactChange,
  type MachineDocument,
  type NamedText,
  type Verdict,
} from "@/core/machine";
import type { Db, Tx } from "./client";
import { BrokenJson } from "./document";
import { reading, writing, type Kept } from "./documents";
import { collectorCodes, machineImports, machines } from "./schema";

export interface MachineIdentity {
  /** Circuit that it hangs on, for the sum of its load. */
  circuit?: string;
  macs: string[];
  hostNames: string[];
  addresses: string[];
}

export interface MachineRow {
  id: string;
  siteId: string;
  name: string;
  version: number;
  updatedAt: string;
  document: MachineDocument;
}

/** What the list of machines shows of one, kept beside its document. */
export interface MachineSummary {
  maker: string;
  model: string;
  assetTag: string;
  role: string;
  place: string;
  controller: string;
  cores: number | null;
  memoryBytes: number | null;
  drives: number;
  ports: number;
  rawBytes: number;
  health: Verdict;
  firmware: string;
  processor: string;
  system: string;
  readAt: string | null;
  defects: number;
  /** What is due and not done: dates of the machine and firmware that was put off. */
  dates: { due: string; what: string }[];
}

/** What another build needs to know of a machine to find a clash. */
export interface MachineMark extends MachineIdentity {
  id: string;
  siteId: string;
  name: string;
  serial: string | null;
}

const identityOf = ({ facts, typed }: MachineDocument): MachineIdentity => ({
  circuit: typed.circuit,
  macs: facts.ports.map((p) => p.mac),
  hostNames: facts.system?.hostName ? [facts.system.hostName] : [],
  addresses: [
    ...(facts.system?.addresses ?? []).map((a) => a.address),
    facts.controller?.address ?? "",
  ].filter(Boolean),
});

const WORST: Verdict[] = ["failing", "watch", "not known", "good"];

function summaryOf({ facts, typed, sources }: MachineDocument): MachineSummary {
  const drives = presentDrives(facts);
  // Sets that a controller shows, sticks and cards keep no counters of their own.
  const judged = drives.filter(
    (d) => d.presentedBy === null && !["usb", "card", "virtual"].includes(d.media),
  );
  const verdicts = new Set(judged.map((d) => judgeDrive(d).verdict));
  const read = Object.values(sources).reduce(
    (latest, s) => (s.tool !== "typed" && s.at > latest ? s.at : latest),
    "",
  );
  return {
    maker: facts.chassis?.maker ?? "",
    model: facts.chassis?.model ?? "",
    assetTag: facts.chassis?.assetTag ?? "",
    role: typed.role ?? "",
    place: typed.place,
    controller: facts.controller?.address ?? "",
    cores: facts.processors?.cores ?? null,
    memoryBytes: facts.memory?.installedBytes ?? facts.memory?.recognisedBytes ?? null,
    drives: drives.length,
    ports: facts.ports.filter((p) => p.kind === "ethernet").length,
    rawBytes: drives.reduce((sum, d) => sum + d.sizeBytes, 0),
    health: WORST.find((v) => verdicts.has(v)) ?? "not known",
    firmware: facts.firmware?.version ?? "",
    processor: facts.processors?.model ?? "",
    system: facts.system?.osName ?? "",
    readAt: read || null,
    defects: typed.defects.filter((d) => d.mendedOn === null).length,
    dates: [
      ...typed.dates.filter((d) => d.doneOn === null).map(({ due, what }) => ({ due, what })),
      ...typed.firmware.flatMap((f) =>
        f.decision === "postponed" && f.due ? [{ due: f.due, what: `Update of ${f.part}` }] : [],
      ),
    ],
  };
}

export const KEPT: Kept<typeof machines, typeof machineDocument.schema, MachineRow> = {
  ...{ definition: machineDocument, table: machines, key: "id", field: "document" },
  columns: (document, name) => ({
    name,
    serial: document.facts.chassis?.serial ?? null,
    document,
    summary: summaryOf(document),
    identity: identityOf(document),
  }),
  row: ({ id, siteId, name, version, updatedAt }, document) => ({
    ...{ id, siteId, name, version, updatedAt, document },
  }),
};
const rows = { ...reading(KEPT), ...writing(KEPT) };
export const { one } = rows;

/** All machines with their documents; for exports and comparisons, not for lists. */
export const all = (db: Db | Tx): Promise<MachineRow[]> => rows.some(db, undefined, [asc(machines.name)]);

/** All machines as lists show them. */
export async function listed(
  db: Db | Tx,
): Promise<
  (Pick<MachineRow, "id" | "siteId" | "name"> & { serial: string | null; summary: MachineSummary })[]
> {
  const found = await db
    .select({
      id: machines.id,
      siteId: machines.siteId,
      name: machines.name,
      serial: machines.serial,
      summary: machines.summary,
    })
    .from(machines)
    .orderBy(asc(machines.name));
  return found.flatMap((row) =>
    row.summary instanceof BrokenJson ? [] : [{ ...row, summary: row.summary as MachineSummary }],
  );
}

/** All machines without their documents. */
export async function marks(db: Db | Tx): Promise<MachineMark[]> {
  const found = await db
    .select({
      id: machines.id,
      siteId: machines.siteId,
      name: machines.name,
      serial: machines.serial,
      identity: machines.identity,
    })
    .from(machines)
    .orderBy(asc(machines.name));
  return found.flatMap(({ identity, ...row }) =>
    identity instanceof BrokenJson ? [] : [{ ...row, ...(identity as MachineIdentity) }],
  );
}

export async function withSerial(db: Db | Tx, serials: string[]): Promise<{ id: string; name: string }[]> {
  return serials.length === 0
    ? []
    : db
        .select({ id: machines.id, name: machines.name })
        .from(machines)
        .where(inArray(machines.serial, serials));
}

export const insert = (
  tx: Tx,
  id: string,
  siteId: string,
  name: string,
  document: MachineDocument,
  at: string,
): Promise<void> => rows.insert(tx, document, at, { id, siteId, name });

/** Saves when `version` is still the stored one; false when somebody saved in between. */
export const update = (
  tx: Tx,
  { id, name, version, document }: Pick<MachineRow, "id" | "name" | "version" | "document">,
  at: string,
): Promise<boolean> => rows.update(tx, id, version, document, at, { name });

export async function addImport(
  tx: Tx,
  entry: { id: string; machineId: string; at: string; by: string; texts: NamedText[]; changes: FactChange[] },
): Promise<void> {
  await tx.insert(machineImports).values(entry);
}

export async function importsOf(
  db: Db | Tx,
  machineId: string,
): Promise<{ id: string; at: string; by: string; changes: FactChange[]; names: string[] }[]> {
  const rows = await db
    .select({
      id: machineImports.id,
      at: machineImports.at,
      by: machineImports.by,
      changes: machineImports.changes,
      // The texts themselves can be megabytes; only their names are wanted here.
      names: sql<string>`(select json_group_array(json_extract(value, '$.name')) from json_each(case when json_valid(${machineImports.texts}) then ${machineImports.texts} else '[]' end))`,
    })
    .from(machineImports)
    .where(eq(machineImports.machineId, machineId))
    .orderBy(desc(machineImports.at))
    .limit(30);
  return rows.map((r) => ({
    id: r.id,
    at: r.at,
    by: r.by,
    changes: r.changes instanceof BrokenJson ? [] : (r.changes as FactChange[]),
    names: JSON.parse(r.names) as string[],
  }));
}

export type ImportRow = typeof machineImports.$inferSelect;

export const importIds = async (db: Db | Tx): Promise<string[]> =>
  (await db.select({ id: machineImports.id }).from(machineImports).orderBy(asc(machineImports.id))).map(
    (r) => r.id,
  );

export const oneImport = async (db: Db | Tx, id: string): Promise<ImportRow | null> =>
  (await db.query.machineImports.findFirst({ where: eq(machineImports.id, id) })) ?? null;

export async function addCode(
  tx: Tx,
  code: { hash: string; machineId: string; expiresAt: string },
): Promise<void> {
  await tx.insert(collectorCodes).values(code);
}

/** Takes a code once: null when it is unknown, over, or used. The bundle waits with it. */
export async function redeemCode(tx: Tx, hash: string, now: string, bundle: string): Promise<string | null> {
  const code = await tx.query.collectorCodes.findFirst({
    where: and(eq(collectorCodes.hash, hash), isNull(collectorCodes.usedAt)),
  });
  if (!code || code.expiresAt < now) return null;
  await tx
    .update(collectorCodes)
    .set({ usedAt: now, bundle, receivedAt: now })
    .where(eq(collectorCodes.hash, hash));
  return code.machineId;
}

/** Bundles that were posted and not yet taken over, newest first. */
export async function waitingBundles(
  db: Db | Tx,
  machineId: string,
): Promise<{ hash: string; receivedAt: string; bundle: string }[]> {
  const rows = await db
    .select()
    .from(collectorCodes)
    .where(and(eq(collectorCodes.machineId, machineId), isNotNull(collectorCodes.bundle)))
    .orderBy(desc(collectorCodes.receivedAt));
  return rows.map((r) => ({ hash: r.hash, receivedAt: r.receivedAt ?? "", bundle: r.bundle ?? "" }));
}

export async function dropBundle(tx: Tx, hash: string): Promise<void> {
  await tx.update(collectorCodes).set({ bundle: null }).where(eq(collectorCodes.hash, hash));
}
