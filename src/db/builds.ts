import { and, count, desc, eq, inArray, max, sql } from "drizzle-orm";
import { z } from "zod";
import { editSchema, type Edit } from "@/core/document";
import { accountSchema, type Account, type KeyHolder } from "@/core/identity";
import { sheetClaims, sheetDocument, type Sheet } from "@/core/sheet";
import * as changeRows from "./changes";
import type { Stamp } from "./changes";
import type { Db, Tx } from "./client";
import { BrokenJson } from "./document";
import { reading, writing, type Kept } from "./documents";
import { whileUnchanged } from "./unchanged";
import { stampOf as machineStamp } from "./machines";
import type { RunMark } from "./runs";
import { buildHistory, builds, machines, runs } from "./schema";

export interface BuildRow {
  id: string;
  number: string;
  version: number;
  revision: string | null;
  revisionVersion: number | null;
  updatedAt: string;
  sheet: Sheet;
}

export interface HistoryRow {
  version: number;
  at: string;
  by: string;
  letter: string | null;
  edits: Edit[];
}

/** What lists and clash rules need of a build, without its sheet. */
export interface BuildMark {
  id: string;
  number: string;
  machineId: string | null;
  imageId: string | null;
  subject: string;
  hostName: string;
  address: string;
  revision: string | null;
  updatedAt: string;
}

export const KEPT: Kept<typeof builds, typeof sheetDocument.schema, BuildRow> = {
  ...{ definition: sheetDocument, table: builds, key: "id", field: "sheet", called: "number" },
  columns: (sheet) => ({
    machineId: sheet.machine.id,
    imageId: sheet.image.id,
    subject: sheet.subject,
    hostName: sheet.answers.hostName,
    address: sheet.network.school === "dynamic" ? "" : sheet.network.address,
    sheet,
  }),
  claims: sheetClaims,
  row: ({ id, number, version, revision, revisionVersion, updatedAt }, sheet) => ({
    ...{ id, number, version, revision, revisionVersion, updatedAt, sheet },
  }),
};
const rows = { ...reading(KEPT), ...writing(KEPT) };
export const { one } = rows;

/** All sheets, read as one is: a sheet that an older Derrick wrote lacks what came since. */
export const all = (db: Db | Tx): Promise<BuildRow[]> => rows.some(db, undefined, [desc(builds.updatedAt)]);

/** Some sheets by their ids; one that is not there is left out. */
export const some = async (db: Db | Tx, ids: readonly string[]): Promise<BuildRow[]> =>
  ids.length === 0 ? [] : rows.some(db, inArray(builds.id, [...ids]));

/** Whether there is a sheet. */
export const any = async (db: Db | Tx): Promise<boolean> =>
  (await db.select({ id: builds.id }).from(builds).limit(1)).length > 0;

/** What lists show of a sheet, from its columns. */
const MARK = {
  id: builds.id,
  number: builds.number,
  machineId: builds.machineId,
  imageId: builds.imageId,
  subject: builds.subject,
  hostName: builds.hostName,
  address: builds.address,
  revision: builds.revision,
  updatedAt: builds.updatedAt,
};

/** Sheets as lists show them, the newest first: of one machine, one image, or all. */
export const marks = (
  db: Db | Tx,
  { machineId, imageId }: { machineId?: string; imageId?: string } = {},
): Promise<BuildMark[]> =>
  db
    .select(MARK)
    .from(builds)
    .where(
      and(
        machineId === undefined ? undefined : eq(builds.machineId, machineId),
        imageId === undefined ? undefined : eq(builds.imageId, imageId),
      ),
    )
    .orderBy(desc(builds.number));

export interface ListedBuild extends BuildMark {
  /** Name of the machine; null while none is chosen. */
  machine: string | null;
  /** The last run of the sheet. */
  run: RunMark | null;
}

/** All sheets with the names of their machines and their last runs, the newest first; as one value, for speed. */
async function readListed(db: Db | Tx): Promise<readonly ListedBuild[]> {
  const columns = Object.entries(MARK).map(([name, column]) => sql`${name}, ${column}`);
  const [row] = await db.all<{ all: string }>(sql`
    SELECT json_group_array(json(line)) AS "all" FROM (
      SELECT json_object(${sql.join(columns, sql`, `)}, 'machine', ${machines.name}, 'run', CASE WHEN run.id IS NULL THEN NULL
        ELSE json_object('id', run.id, 'buildId', ${builds.id}, 'startedAt', run.started_at, 'endedAt', run.ended_at) END) AS line
      FROM ${builds} LEFT JOIN ${machines} ON ${machines.id} = ${builds.machineId}
      LEFT JOIN ${runs} AS run ON run.id =
        (SELECT id FROM runs AS other WHERE other.build_id = ${builds.id} ORDER BY other.started_at DESC LIMIT 1)
      ORDER BY ${builds.number} DESC)`);
  return JSON.parse(row?.all ?? "[]") as ListedBuild[];
}

const stampOf = async (db: Db | Tx): Promise<string> =>
  JSON.stringify([
    await machineStamp(db),
    await db
      .select({ rows: count(), saves: sql`total(${builds.version})`, last: max(builds.updatedAt) })
      .from(builds),
    await db.select({ rows: count(), ended: count(runs.endedAt), last: max(runs.startedAt) }).from(runs),
  ]);

export const listed = whileUnchanged(stampOf, readListed);

/** Sheets that were never carried out, those first that were changed last. */
export const preparing = (db: Db | Tx, most: number): Promise<BuildRow[]> =>
  rows.some(
    db,
    sql`not exists (select 1 from runs where runs.build_id = ${builds.id})`,
    [desc(builds.updatedAt)],
    most,
  );

/** What the last sheet of each machine of a site says of its name and address, read out of the documents by the database. */
export async function hostsAt(
  db: Db | Tx,
  siteId: string,
): Promise<
  { name: string; domain: string; address: string; mac: string | null; school: string; hostKeys: string[] }[]
> {
  const at = (path: string) => sql<string | null>`${builds.sheet} ->> ${path}`;
  const rows = await db
    .select({
      name: builds.hostName,
      domain: at("$.answers.domain"),
      address: builds.address,
      mac: at("$.network.port"),
      school: at("$.network.school"),
      hostKeys: at("$.network.hostKeys"),
    })
    .from(builds)
    .innerJoin(machines, eq(machines.id, builds.machineId))
    .where(
      and(
        eq(machines.siteId, siteId),
        sql`json_valid(${builds.sheet})`,
        sql`${builds.number} = (select max(other.number) from builds as other where other.machine_id = ${machines.id})`,
      ),
    )
    .orderBy(builds.number);
  return rows.map((r) => ({
    ...{ ...r, domain: r.domain ?? "", school: r.school ?? "fixed" },
    hostKeys: z
      .array(z.string())
      .catch([])
      .parse(JSON.parse(r.hostKeys ?? "[]")),
  }));
}

/** The last sheet of each machine that goes by network, where no run of it has ended: by number. */
export async function byNetwork(
  db: Db | Tx,
): Promise<{ id: string; number: string; machine: string; siteId: string }[]> {
  return db
    .select({ id: builds.id, number: builds.number, machine: machines.name, siteId: machines.siteId })
    .from(builds)
    .innerJoin(machines, eq(machines.id, builds.machineId))
    .where(
      and(
        sql`json_valid(${builds.sheet})`,
        sql`${builds.sheet} ->> '$.image.way' = 'network'`,
        sql`${builds.number} = (select max(other.number) from builds as other where other.machine_id = ${machines.id})`,
        sql`not exists (select 1 from runs where runs.build_id = ${builds.id} and runs.ended_at is not null)`,
      ),
    )
    .orderBy(builds.number);
}

/** The accounts of the last sheet of each machine, with the machine and its site; null where they do not read. */
export async function accountsPlanned(
  db: Db | Tx,
): Promise<(Omit<KeyHolder, "accounts"> & { accounts: Account[] | null })[]> {
  const rows = await db
    .select({
      ...{ build: builds.id, number: builds.number, machineId: machines.id, machine: machines.name },
      ...{ siteId: machines.siteId, accounts: sql<string | null>`${builds.sheet} ->> '$.answers.accounts'` },
    })
    .from(builds)
    .innerJoin(machines, eq(machines.id, builds.machineId))
    .where(
      and(
        sql`json_valid(${builds.sheet})`,
        sql`${builds.number} = (select max(other.number) from builds as other where other.machine_id = ${machines.id})`,
      ),
    )
    .orderBy(machines.name);
  return rows.map(({ accounts, ...row }) => ({
    ...row,
    accounts: z.array(accountSchema).safeParse(JSON.parse(accounts ?? "[]")).data ?? null,
  }));
}

/** The images that a sheet uses which is not handed over. */
export async function imagesWanted(db: Db | Tx): Promise<Set<string>> {
  const rows = await db.selectDistinct({ id: builds.imageId }).from(builds).where(sql`
    ${builds.imageId} is not null and not exists
      (select 1 from runs where runs.build_id = ${builds.id} and runs.ended_at is not null)`);
  return new Set(rows.map((r) => r.id!));
}

/** The next free sheet number, "B-0042". */
export async function nextNumber(tx: Tx): Promise<string> {
  const [row] = await tx
    .select({ last: sql<number | null>`max(cast(substr(${builds.number}, 3) as integer))` })
    .from(builds);
  return `B-${String((row?.last ?? 0) + 1).padStart(4, "0")}`;
}

export const insert = (
  tx: Tx,
  { sheet, ...row }: { id: string; number: string; sheet: Sheet },
  stamp: Stamp,
): Promise<void> => rows.insert(tx, sheet, stamp, row);

/** Puts a build back from an export, with its history and the versions that it had. */
export async function restore(
  tx: Tx,
  row: { id: string; number: string; sheet: Sheet; revision: string | null; history: HistoryRow[] },
  stamp: Stamp,
): Promise<void> {
  const version = Math.max(1, ...row.history.map((h) => h.version));
  const revisionVersion =
    row.history.find((h) => h.letter !== null && h.letter === row.revision)?.version ?? null;
  const updatedAt = row.history.find((h) => h.version === version)?.at ?? stamp.at;
  await rows.insert(
    tx,
    row.sheet,
    { ...stamp, at: updatedAt },
    {
      ...{ id: row.id, number: row.number, revision: row.revision, revisionVersion, version },
    },
  );
  for (const entry of row.history) await addHistory(tx, row.id, entry);
}

/** Saves a sheet with the edits that led to it, when `version` is still the stored one; false when it is not. */
export async function save(
  tx: Tx,
  id: string,
  version: number,
  sheet: Sheet,
  edits: Edit[],
  stamp: Stamp,
): Promise<boolean> {
  if (!(await rows.update(tx, id, version, sheet, stamp))) return false;
  await addHistory(tx, id, { version: version + 1, ...stamp, letter: null, edits });
  return true;
}

export async function addHistory(tx: Tx, buildId: string, row: HistoryRow): Promise<void> {
  await tx.insert(buildHistory).values({ buildId, ...row });
}

/** Issues a letter for the present version; it stands in the history as a row of its own kind. */
export async function issue(
  tx: Tx,
  id: string,
  version: number,
  letter: string,
  stamp: Stamp,
): Promise<boolean> {
  const done = await tx
    .update(builds)
    .set({ revision: letter, revisionVersion: version + 1, version: version + 1, updatedAt: stamp.at })
    .where(and(eq(builds.id, id), eq(builds.version, version)));
  if (done.rowsAffected !== 1) return false;
  await addHistory(tx, id, { version: version + 1, ...stamp, letter, edits: [] });
  await changeRows.add(tx, "build", id, version + 1, stamp, []);
  return true;
}

export async function history(db: Db | Tx, buildId: string, most = 200): Promise<HistoryRow[]> {
  const rows = await db
    .select()
    .from(buildHistory)
    .where(eq(buildHistory.buildId, buildId))
    .orderBy(desc(buildHistory.version))
    .limit(most);
  return rows.map(({ version, at, by, letter, edits }) => ({
    version,
    at,
    by,
    letter,
    edits: edits instanceof BrokenJson ? [] : z.array(editSchema).catch([]).parse(edits),
  }));
}
