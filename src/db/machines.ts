import { and, asc, count, desc, eq, inArray, isNotNull, isNull, max, sql } from "drizzle-orm";
import { machineClaims, macClaim } from "@/core/claims";
import {
  machineDocument,
  summaryOf,
  type FactChange,
  type MachineDocument,
  type MachineSummary,
  type NamedText,
} from "@/core/machine";
import type { Stamp } from "./changes";
import type { Db, Tx } from "./client";
import { BrokenJson } from "./document";
import { reading, writing, type Kept } from "./documents";
import { whileUnchanged } from "./unchanged";
import { claims, collectorCodes, machineImports, machines, sites } from "./schema";

export interface MachineRow {
  id: string;
  siteId: string;
  name: string;
  version: number;
  updatedAt: string;
  document: MachineDocument;
}

export const KEPT: Kept<typeof machines, typeof machineDocument.schema, MachineRow> = {
  ...{ definition: machineDocument, table: machines, key: "id", field: "document", called: "name" },
  columns: (document) => ({
    serial: document.facts.chassis?.serial ?? null,
    document,
    summary: summaryOf(document),
  }),
  claims: machineClaims,
  row: ({ id, siteId, name, version, updatedAt }, document) => ({
    ...{ id, siteId, name, version, updatedAt, document },
  }),
};
const rows = { ...reading(KEPT), ...writing(KEPT) };
export const { one } = rows;

/** Whether there is a machine. */
export const any = async (db: Db | Tx): Promise<boolean> =>
  (await db.select({ id: machines.id }).from(machines).limit(1)).length > 0;

/** All machines with their documents; for exports and comparisons, not for lists. */
export const all = (db: Db | Tx): Promise<MachineRow[]> => rows.some(db, undefined, [asc(machines.name)]);

/** Some machines with their documents; damaged ones are left out. */
export const some = async (db: Db | Tx, ids: string[]): Promise<MachineRow[]> =>
  ids.length === 0 ? [] : rows.some(db, inArray(machines.id, [...new Set(ids)]));

export type ListedMachine = Pick<MachineRow, "id" | "siteId" | "name"> & {
  serial: string | null;
  summary: MachineSummary;
};

/** As one value: thousands of rows with their columns cost the driver more than what is in them. */
async function readListed(db: Db | Tx): Promise<readonly ListedMachine[]> {
  const { id, siteId, name, serial, summary } = machines;
  const [row] = await db.all<{ all: string }>(sql`
    SELECT json_group_array(json_object(
      'id', id, 'siteId', site_id, 'name', name, 'serial', serial, 'summary', json(summary))) AS "all"
    FROM (SELECT ${id} AS id, ${siteId} AS site_id, ${name} AS name, ${serial} AS serial, ${summary} AS summary
      FROM ${machines} WHERE json_valid(${summary}) ORDER BY ${name})`);
  return JSON.parse(row?.all ?? "[]") as ListedMachine[];
}

/** Changes whenever a machine is added, saved or repaired. */
export const stampOf = async (db: Db | Tx): Promise<string> =>
  JSON.stringify(
    await db
      .select({ rows: count(), saves: sql`total(${machines.version})`, last: max(machines.updatedAt) })
      .from(machines),
  );

/** All machines as lists show them; nobody changes what is given here, since the next one gets it too. */
export const listed = whileUnchanged(stampOf, readListed);

/** The machines of a site, by name; without one, of all sites. */
export const named = (
  db: Db | Tx,
  siteId?: string,
): Promise<{ id: string; siteId: string; name: string }[]> =>
  db
    .select({ id: machines.id, siteId: machines.siteId, name: machines.name })
    .from(machines)
    .where(siteId === undefined ? undefined : eq(machines.siteId, siteId))
    .orderBy(asc(machines.name));

/** The machines of a site with their ports, read out of the documents by the database: nothing else of them is needed. */
export async function portsAt(
  db: Db | Tx,
  siteId: string,
): Promise<{ name: string; ports: { mac: string; seenAs: string }[] }[]> {
  const ports = sql<string>`(SELECT json_group_array(json_object('mac', value ->> 'mac', 'seenAs', value ->> 'seenAs'))
    FROM json_each(${machines.document}, '$.facts.ports'))`;
  const rows = await db
    .select({ name: machines.name, ports })
    .from(machines)
    .where(and(eq(machines.siteId, siteId), sql`json_valid(${machines.document})`))
    .orderBy(asc(machines.name));
  return rows.map((r) => ({ name: r.name, ports: JSON.parse(r.ports) as { mac: string; seenAs: string }[] }));
}

export const siteOf = async (db: Db | Tx, id: string): Promise<string | null> =>
  (await db.query.machines.findFirst({ where: eq(machines.id, id), columns: { siteId: true } }))?.siteId ??
  null;

/** All machines with the names of their sites; as one value, since thousands of rows cost more than what is in them. */
export async function choices(db: Db | Tx): Promise<{ id: string; name: string; site: string }[]> {
  const [row] = await db.all<{ all: string }>(sql`
    SELECT json_group_array(json_object('id', id, 'name', name, 'site', site)) AS "all" FROM (
      SELECT ${machines.id} AS id, ${machines.name} AS name, ${sites.name} AS site
      FROM ${machines} JOIN ${sites} ON ${sites.id} = ${machines.siteId} ORDER BY ${machines.name})`);
  return JSON.parse(row?.all ?? "[]") as { id: string; name: string; site: string }[];
}

/** How many machines stand at each site. */
export async function countBySite(db: Db | Tx): Promise<Map<string, number>> {
  const { siteId } = machines;
  return new Map(
    (await db.select({ siteId, count: count() }).from(machines).groupBy(siteId)).map((r) => [
      r.siteId,
      r.count,
    ]),
  );
}

export const nameIsTaken = async (db: Db | Tx, siteId: string, name: string): Promise<boolean> =>
  (await db.query.machines.findFirst({
    where: and(eq(machines.siteId, siteId), eq(machines.name, name)),
    columns: { id: true },
  })) !== undefined;

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
  stamp: Stamp,
): Promise<void> => rows.insert(tx, document, stamp, { id, siteId, name });

/** Saves when `version` is still the stored one; false when somebody saved in between. */
export const update = (
  tx: Tx,
  { id, name, version, document }: Pick<MachineRow, "id" | "name" | "version" | "document">,
  stamp: Stamp,
): Promise<boolean> => rows.update(tx, id, version, document, stamp, { name });

/** As `update`, for what leaves the name as it is. */
export const saveDocument = rows.update;

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

/** The machine with a port of this MAC; null when no machine or more than one has it. */
export async function byMac(db: Db | Tx, mac: string): Promise<{ id: string; name: string } | null> {
  return (await byMacs(db, [mac])).get(mac) ?? null;
}

/** The same of several MACs, in one look; without those that no machine or more than one has. */
export async function byMacs(
  db: Db | Tx,
  macs: readonly string[],
): Promise<Map<string, { id: string; name: string }>> {
  const keyOf = (mac: string): string => macClaim(mac).key;
  const found = await db
    .select({ id: machines.id, name: machines.name, key: claims.key })
    .from(claims)
    .innerJoin(machines, eq(machines.id, claims.ownerId))
    .where(
      and(
        eq(claims.owner, "machine"),
        eq(claims.kind, "mac"),
        inArray(claims.key, [...new Set(macs.map(keyOf))]),
      ),
    );
  const owners = new Map<string, { id: string; name: string }[]>();
  for (const { key, ...machine } of found) owners.set(key, [...(owners.get(key) ?? []), machine]);
  return new Map(
    macs.flatMap((mac) => {
      const [one, ...others] = owners.get(keyOf(mac)) ?? [];
      return one && others.length === 0 ? [[mac, one]] : [];
    }),
  );
}
