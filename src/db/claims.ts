import { and, asc, between, count, desc, eq, gte, inArray, lt, or, sql, type SQL } from "drizzle-orm";
import { CLAIM_KINDS, type Claim, type ClaimKind, type Held } from "@/core/claims";
import { LEDGER_KINDS, type SiteClaim } from "@/core/site";
import type { Db, Tx } from "./client";
import { builds, claims, machines, sites } from "./schema";

const sameClaim = ({ kind, key }: Claim): string => `${kind} ${key}`;

/** Puts the claims of one owner in the place of those that it had; nothing is written when they are the same. */
export async function put(tx: Tx, owner: string, id: string, wanted: readonly Claim[]): Promise<void> {
  const mine = and(eq(claims.owner, owner), eq(claims.ownerId, id));
  const standing = await tx.select({ kind: claims.kind, key: claims.key }).from(claims).where(mine);
  const before = new Set(standing.map((c) => sameClaim(c as Claim)));
  if (before.size === wanted.length && wanted.every((c) => before.has(sameClaim(c)))) return;
  if (before.size > 0) await tx.delete(claims).where(mine);
  await add(tx, owner, id, wanted);
}

/** The claims of an owner that has none yet. */
export async function add(tx: Tx, owner: string, id: string, wanted: readonly Claim[]): Promise<void> {
  if (wanted.length === 0) return;
  await tx.insert(claims).values(wanted.map(({ kind, key }) => ({ kind, key, owner, ownerId: id })));
}

/** All that one owner claims, as it stands in the table. */
export const ofOwner = async (db: Db | Tx, owner: string, id: string): Promise<Claim[]> => {
  const rows = await db
    .select({ kind: claims.kind, key: claims.key })
    .from(claims)
    .where(and(eq(claims.owner, owner), eq(claims.ownerId, id)));
  return rows.map(({ kind, key }) => ({ kind: kind as ClaimKind, key }));
};

/** Everybody who claims anything. */
export const owners = (db: Db | Tx): Promise<{ owner: string; ownerId: string }[]> =>
  db.selectDistinct({ owner: claims.owner, ownerId: claims.ownerId }).from(claims);

/** Any of some claims, by kind, so that each part is one range of the index. */
function anyOf(wanted: readonly Claim[]): SQL | undefined {
  const ofKind = (kind: ClaimKind): string[] => wanted.filter((c) => c.kind === kind).map((c) => c.key);
  return or(
    ...CLAIM_KINDS.map((kind) => ({ kind, keys: ofKind(kind) }))
      .filter(({ keys }) => keys.length > 0)
      .map(({ kind, keys }) => and(eq(claims.kind, kind), inArray(claims.key, keys))),
  );
}

/** The machine that a claim is about: its owner, or the one that the owning sheet installs. */
const withMachines = (db: Db | Tx) =>
  db
    .select({
      kind: claims.kind,
      key: claims.key,
      owner: claims.owner,
      ownerId: claims.ownerId,
      machine: machines.name,
      machineId: machines.id,
      siteId: machines.siteId,
      number: builds.number,
      hostName: builds.hostName,
    })
    .from(claims)
    .leftJoin(builds, and(eq(claims.owner, "build"), eq(builds.id, claims.ownerId)))
    .leftJoin(machines, eq(machines.id, sql`coalesce(${builds.machineId}, ${claims.ownerId})`))
    .$dynamic();

/** Who holds any of some claims: machines by name, then sheets, the newest first. */
export async function holders(db: Db | Tx, wanted: readonly Claim[]): Promise<Held[]> {
  if (wanted.length === 0) return [];
  const rows = await withMachines(db)
    .where(anyOf(wanted))
    .orderBy(sql`${builds.number} is not null`, asc(machines.name), sql`${builds.number} desc`);
  return rows.map(({ hostName: _, kind, owner, ...row }) => ({
    ...{ ...row, kind: kind as ClaimKind, owner: owner as Held["owner"] },
  }));
}

/** Names that begin so and that somebody has at a site, but for one sheet and its machine; in small letters. */
export async function namesAt(
  db: Db | Tx,
  siteId: string,
  stem: string,
  but: { buildId: string; machineId: string | null },
): Promise<string[]> {
  const rows = await withMachines(db).where(
    // A stretch of the index: names have no sign behind "z".
    and(eq(claims.kind, "name"), between(claims.key, stem, `${stem}~`), eq(machines.siteId, siteId)),
  );
  return rows
    .filter(({ ownerId, machineId }) => ownerId !== but.buildId && machineId !== but.machineId)
    .map(({ key }) => key);
}

/** Who has which address at a site, between two keys where these are given; a machine before the sheet that plans it. */
export async function addressesAt(
  db: Db | Tx,
  siteId: string,
  range: { first: string; last: string } | null = null,
): Promise<Map<string, string>> {
  const rows = await withMachines(db)
    .where(
      and(
        eq(claims.kind, "address"),
        eq(machines.siteId, siteId),
        range ? between(claims.key, range.first, range.last) : undefined,
      ),
    )
    .orderBy(sql`${builds.number} is null`);
  return new Map(
    rows.map(({ key, machine, number, hostName }) => [
      key,
      number === null ? (machine ?? "") : `${hostName || number} (${number})`,
    ]),
  );
}

/** Who has which address at a site, in words, with the page that tells of it; a machine before the sheet that plans it. */
export async function takersAt(
  db: Db | Tx,
  siteId: string,
): Promise<{ key: string; what: string; href: string }[]> {
  const rows = await withMachines(db)
    .where(and(eq(claims.kind, "address"), eq(machines.siteId, siteId)))
    .orderBy(sql`${builds.number} is null`, asc(claims.key));
  const takers = rows.map(({ key, ownerId, machine, number, hostName }) => ({
    key,
    what: number === null ? (machine ?? "") : `${hostName || number} (${number})`,
    href: number === null ? `/machines/${ownerId}` : `/builds/${ownerId}`,
  }));
  return [...new Map(takers.map((t) => [t.key, t])).values()];
}

/** The doors from outside that sheets of a site open, those first that are closed first. */
export async function doorsAt(
  db: Db | Tx,
  siteId: string,
): Promise<{ until: string; service: string; what: string; href: string }[]> {
  const rows = await withMachines(db)
    .where(and(eq(claims.kind, "door"), eq(machines.siteId, siteId)))
    .orderBy(asc(claims.key));
  return rows.map(({ key, ownerId, machine, number }) => ({
    ...{ until: key.slice(0, 10), service: key.slice(11) },
    ...{ what: `${machine} (${number})`, href: `/builds/${ownerId}` },
  }));
}

/**
 * What machines and their sheets claim at a site; as one value, since thousands of rows cost more than what is in them. With
 * `of`, only what some owners claim: machines, sheets, and the sheets for these machines.
 */
async function machineClaimsAt(
  db: Db | Tx,
  siteId: string,
  of: readonly string[] | null,
): Promise<SiteClaim[]> {
  const ids =
    of === null
      ? null
      : sql.join(
          of.map((id) => sql`${id}`),
          sql`, `,
        );
  const among = (column: SQL): SQL =>
    ids === null
      ? sql`true`
      : sql`${column} IN (SELECT id FROM builds WHERE id IN (${ids}) OR machine_id IN (${ids}) UNION ALL
          SELECT id FROM machines WHERE id IN (${ids}))`;
  const row = await db.get<{ held: string }>(sql`
    SELECT json_group_array(json_array(c.kind, c.key, c.owner, c.owner_id, m.id,
      CASE WHEN b.id IS NULL THEN m.name ELSE coalesce(nullif(b.host_name, ''), m.name) || ' (' || b.number || ')' END)) AS held
    FROM (SELECT * FROM claims WHERE owner IN ('machine', 'build') AND ${among(sql`owner_id`)}) AS c
    LEFT JOIN builds AS b ON c.owner = 'build' AND b.id = c.owner_id
    JOIN machines AS m ON m.id = coalesce(b.machine_id, c.owner_id) AND m.site_id = ${siteId}
    WHERE c.kind IN ('address', 'name', 'mac')`);
  type Line = [ClaimKind, string, "machine" | "build", string, string, string];
  return (JSON.parse(row?.held ?? "[]") as Line[]).map(([kind, key, owner, ownerId, machineId, name]) => ({
    ...{ kind, key, owner, ownerId, machineId, name },
  }));
}

/**
 * What is claimed at a site, as its own check reads it, and the prefixes of other sites. With `of`, only what some owners
 * claim: sites, machines, sheets, and the sheets for these machines.
 */
export async function claimsAtSite(
  db: Db | Tx,
  siteId: string,
  of: readonly string[] | null = null,
): Promise<SiteClaim[]> {
  const [own, held] = await Promise.all([
    db
      .select({ kind: claims.kind, key: claims.key, ownerId: claims.ownerId, name: sites.name })
      .from(claims)
      .innerJoin(sites, eq(sites.id, claims.ownerId))
      .where(
        and(
          eq(claims.owner, "site"),
          or(
            and(eq(claims.ownerId, siteId), inArray(claims.kind, [...LEDGER_KINDS])),
            eq(claims.kind, "prefix"),
          ),
          of === null ? undefined : inArray(claims.ownerId, [...of]),
        ),
      ),
    machineClaimsAt(db, siteId, of),
  ]);
  return [
    ...own.map(({ kind, ...row }) => ({
      ...{ ...row, kind: kind as ClaimKind, owner: "site" as const, machineId: null },
      ...(row.ownerId === siteId ? {} : { elsewhere: true }),
    })),
    ...held,
  ];
}

/** The machines that hang on circuits of some names, at any site. */
export async function onCircuits(
  db: Db | Tx,
  circuits: readonly string[],
): Promise<{ id: string; name: string; siteId: string; circuit: string }[]> {
  return db
    .select({ id: machines.id, name: machines.name, siteId: machines.siteId, circuit: claims.key })
    .from(claims)
    .innerJoin(machines, eq(machines.id, claims.ownerId))
    .where(and(eq(claims.kind, "circuit"), inArray(claims.key, [...new Set(circuits)])))
    .orderBy(asc(machines.name));
}

/** All that anybody claims of some kinds, each once. */
export const keysOf = async (db: Db | Tx, kinds: readonly ClaimKind[]): Promise<Claim[]> => {
  if (kinds.length === 0) return [];
  const found = await db
    .selectDistinct({ kind: claims.kind, key: claims.key })
    .from(claims)
    .where(inArray(claims.kind, [...kinds]));
  return found.map(({ kind, key }) => ({ kind: kind as ClaimKind, key }));
};

/** The names of the machines that hold each of some claims, by "kind key". */
export async function machinesWith(db: Db | Tx, wanted: readonly Claim[]): Promise<Map<string, string[]>> {
  if (wanted.length === 0) return new Map();
  const found = await db
    .select({
      kind: claims.kind,
      key: claims.key,
      names: sql<string>`json_group_array(${machines.name})`,
    })
    .from(claims)
    .innerJoin(machines, eq(machines.id, claims.ownerId))
    .where(and(eq(claims.owner, "machine"), anyOf(wanted)))
    .groupBy(claims.kind, claims.key);
  return new Map(found.map((r) => [sameClaim(r as Claim), JSON.parse(r.names) as string[]]));
}

/** A day that a machine or sheet claims, and what it calls for. */
export interface DateRow {
  /** "2026-12-01 Evaluation ends". */
  key: string;
  owner: "machine" | "build";
  ownerId: string;
  machine: string | null;
  siteId: string | null;
  subject: string | null;
  hostName: string | null;
  number: string | null;
}

/** All dates before a day, and so many of those on and after it; `more` are those that were left out. */
export async function dates(
  db: Db | Tx,
  day: string,
  most: number,
): Promise<{ rows: DateRow[]; more: number }> {
  const select = (where: SQL, limit: number) =>
    db
      .select({
        key: claims.key,
        owner: claims.owner,
        ownerId: claims.ownerId,
        machine: machines.name,
        siteId: machines.siteId,
        subject: builds.subject,
        hostName: builds.hostName,
        number: builds.number,
      })
      .from(claims)
      .leftJoin(builds, and(eq(claims.owner, "build"), eq(builds.id, claims.ownerId)))
      .leftJoin(machines, eq(machines.id, sql`coalesce(${builds.machineId}, ${claims.ownerId})`))
      .where(and(eq(claims.kind, "date"), where))
      .orderBy(asc(claims.key))
      .limit(limit);
  const [before, after, [all]] = await Promise.all([
    select(lt(claims.key, day), -1),
    select(gte(claims.key, day), most),
    db
      .select({ count: count() })
      .from(claims)
      .where(and(eq(claims.kind, "date"), gte(claims.key, day))),
  ]);
  return { rows: [...before, ...after] as DateRow[], more: (all?.count ?? 0) - after.length };
}

/** The names of machines and sheets: what a person may have meant by a word with a slip in it. */
export async function nameTexts(db: Db | Tx): Promise<string[]> {
  const [named, sheets] = await Promise.all([
    db.select({ name: machines.name }).from(machines),
    db.select({ subject: builds.subject, hostName: builds.hostName }).from(builds),
  ]);
  return [...named.map((m) => m.name), ...sheets.map((b) => `${b.subject} ${b.hostName}`)];
}

/** Days in whose words all of some words stand, the next ones first. */
export const findDates = (db: Db | Tx, words: readonly string[], most: number) =>
  db
    .select({
      ...{ key: claims.key, owner: claims.owner, ownerId: claims.ownerId },
      ...{ machine: machines.name, number: builds.number },
    })
    .from(claims)
    .leftJoin(builds, and(eq(claims.owner, "build"), eq(builds.id, claims.ownerId)))
    .leftJoin(machines, eq(machines.id, sql`coalesce(${builds.machineId}, ${claims.ownerId})`))
    .where(
      and(eq(claims.kind, "date"), ...words.map((word) => sql`instr(lower(${claims.key}), ${word}) > 0`)),
    )
    .orderBy(asc(claims.key))
    .limit(most);

/** The ids of machines, or of sheets, in whose words one word stands; a sheet is found by its machine's name too. */
const withWord = (owner: "machine" | "build", word: string): SQL => {
  const own = sql`SELECT owner_id FROM claims WHERE kind = 'words' AND owner = ${owner} AND instr(key, ${word}) > 0`;
  return owner === "machine"
    ? own
    : sql`SELECT owner_id FROM (${own} UNION SELECT builds.id FROM claims
        JOIN machines ON machines.id = owner_id JOIN builds ON builds.machine_id = machines.id
        WHERE kind = 'words' AND owner = 'machine' AND instr(key, ${word}) > 0 AND instr(lower(machines.name), ${word}) > 0)`;
};

const withAllWords = (owner: "machine" | "build", words: readonly string[]): SQL =>
  sql`(${sql.join(
    words.map((word) => withWord(owner, word)),
    sql` INTERSECT `,
  )})`;

/** Machines and sheets in whose words all of some words stand, whatever order they have; at most so many of each. */
export async function findWords(db: Db | Tx, words: readonly string[], most: number) {
  const { id, name, serial, summary } = machines;
  const address = sql<string | null>`json_extract(${summary}, '$.address')`;
  const [found, sheets] = await Promise.all([
    db
      .select({ id, name, serial, address })
      .from(machines)
      .where(sql`${id} IN ${withAllWords("machine", words)}`)
      .orderBy(asc(name))
      .limit(most),
    db
      .select({ id: builds.id, number: builds.number, subject: builds.subject, machine: name })
      .from(builds)
      .leftJoin(machines, eq(id, builds.machineId))
      .where(sql`${builds.id} IN ${withAllWords("build", words)}`)
      .orderBy(desc(builds.number))
      .limit(most),
  ]);
  return { machines: found, builds: sheets };
}
