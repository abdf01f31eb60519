import { and, desc, eq, sql } from "drizzle-orm";
import { z } from "zod";
import { editSchema, sheetDocument, type Edit, type Sheet } from "@/core/build";
import type { Db, Tx } from "./client";
import { BrokenJson } from "./document";
import { reading, writing, type Kept } from "./documents";
import { buildHistory, builds } from "./schema";

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
  ...{ definition: sheetDocument, table: builds, key: "id", field: "sheet" },
  columns: (sheet) => ({
    machineId: sheet.machine.id,
    imageId: sheet.image.id,
    subject: sheet.subject,
    hostName: sheet.answers.hostName,
    address: sheet.network.school === "dynamic" ? "" : sheet.network.address,
    sheet,
  }),
  row: ({ id, number, version, revision, revisionVersion, updatedAt }, sheet) => ({
    ...{ id, number, version, revision, revisionVersion, updatedAt, sheet },
  }),
};
const rows = { ...reading(KEPT), ...writing(KEPT) };
export const { one } = rows;

/** All sheets, read as one is: a sheet that an older Derrick wrote lacks what came since. */
export const all = (db: Db | Tx): Promise<BuildRow[]> => rows.some(db, undefined, [desc(builds.updatedAt)]);

export function marks(db: Db | Tx): Promise<BuildMark[]> {
  const { id, number, machineId, imageId, subject, hostName, address, revision, updatedAt } = builds;
  return db
    .select({ id, number, machineId, imageId, subject, hostName, address, revision, updatedAt })
    .from(builds)
    .orderBy(desc(builds.number));
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
  at: string,
): Promise<void> => rows.insert(tx, sheet, at, row);

/** Puts a build back from an export, with its history and the versions that it had. */
export async function restore(
  tx: Tx,
  row: { id: string; number: string; sheet: Sheet; revision: string | null; history: HistoryRow[] },
  at: string,
): Promise<void> {
  const version = Math.max(1, ...row.history.map((h) => h.version));
  const revisionVersion =
    row.history.find((h) => h.letter !== null && h.letter === row.revision)?.version ?? null;
  const updatedAt = row.history.find((h) => h.version === version)?.at ?? at;
  await rows.insert(tx, row.sheet, updatedAt, {
    ...{ id: row.id, number: row.number, revision: row.revision, revisionVersion, version },
  });
  for (const entry of row.history) await addHistory(tx, row.id, entry);
}

/** Saves a sheet with the edits that led to it, when `version` is still the stored one; false when it is not. */
export async function save(
  tx: Tx,
  id: string,
  version: number,
  sheet: Sheet,
  edits: Edit[],
  by: string,
  at: string,
): Promise<boolean> {
  if (!(await rows.update(tx, id, version, sheet, at))) return false;
  await addHistory(tx, id, { version: version + 1, at, by, letter: null, edits });
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
  by: string,
  at: string,
): Promise<boolean> {
  const done = await tx
    .update(builds)
    .set({ revision: letter, revisionVersion: version + 1, version: version + 1, updatedAt: at })
    .where(and(eq(builds.id, id), eq(builds.version, version)));
  if (done.rowsAffected !== 1) return false;
  await addHistory(tx, id, { version: version + 1, at, by, letter, edits: [] });
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
