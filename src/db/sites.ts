import { asc, sql } from "drizzle-orm";
import { siteClaims, siteDocument, type Site } from "@/core/site";
import type { Stamp } from "./changes";
import type { Db, Tx } from "./client";
import { reading, writing, type Kept } from "./documents";
import { sites } from "./schema";

export interface SiteRow {
  id: string;
  version: number;
  updatedAt: string;
  site: Site;
}

export const KEPT: Kept<typeof sites, typeof siteDocument.schema, SiteRow> = {
  ...{ definition: siteDocument, table: sites, key: "id", field: "document", called: "name" },
  columns: (document) => ({ name: document.name, document }),
  claims: siteClaims,
  row: ({ id, version, updatedAt }, site) => ({ id, version, updatedAt, site }),
};
const rows = { ...reading(KEPT), ...writing(KEPT) };
export const { one, ifSound, update } = rows;

export const all = (db: Db | Tx): Promise<SiteRow[]> => rows.some(db, undefined, [asc(sites.name)]);

/** The time zones of all sites, each once. */
export const timeZones = async (db: Db | Tx): Promise<string[]> => {
  const zone = sql<string | null>`json_extract(${sites.document}, '$.timeZone')`;
  const found = await db.selectDistinct({ zone }).from(sites);
  return found.flatMap((row) => row.zone ?? []);
};

export const insert = (tx: Tx, id: string, site: Site, stamp: Stamp): Promise<void> =>
  rows.insert(tx, site, stamp, { id });
