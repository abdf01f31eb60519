import { and, asc, desc, eq, gt, inArray, isNotNull, isNull, max, or, sql } from "drizzle-orm";
import { armingSchema, bootEventSchema, type Arming, type BootEvent, type LoggedBoot } from "@/core/netboot";
import * as changeRows from "./changes";
import type { Db, Tx } from "./client";
import { armings, bootEvents } from "./schema";

export interface ArmingRow {
  id: string;
  machineId: string;
  buildId: string;
  arming: Arming;
}

/** A statement takes some thousand values. */
const ROWS_AT_ONCE = 200;

/** In the order in which they were made: two in one second have ids that do not tell. */
const NEWEST = sql`rowid desc`;

/** Rows that read; one that does not (a hand's doing) arms nothing. */
const sound = (rows: readonly (typeof armings.$inferSelect)[]): ArmingRow[] =>
  rows.flatMap(({ id, machineId, buildId, agreed }) => {
    const arming = armingSchema.safeParse(agreed);
    return arming.success ? [{ id, machineId, buildId, arming: arming.data }] : [];
  });

const pieces = <T>(all: readonly T[]): T[][] =>
  Array.from({ length: Math.ceil(all.length / ROWS_AT_ONCE) }, (_, i) =>
    all.slice(i * ROWS_AT_ONCE, (i + 1) * ROWS_AT_ONCE),
  );

export async function insert(tx: Tx, row: ArmingRow, stamp: changeRows.Stamp): Promise<void> {
  const { id, machineId, buildId, arming } = row;
  await tx.insert(armings).values({ id, machineId, buildId, until: arming.until, agreed: arming });
  await changeRows.add(tx, "arming", id, 1, stamp);
}

export async function one(db: Db | Tx, id: string): Promise<ArmingRow | null> {
  return sound(await db.select().from(armings).where(eq(armings.id, id)))[0] ?? null;
}

/** Several, in no order; those that are not there, or do not read, are left out. */
export async function some(db: Db | Tx, ids: readonly string[]): Promise<ArmingRow[]> {
  const found: ArmingRow[] = [];
  for (const piece of pieces(ids))
    found.push(...sound(await db.select().from(armings).where(inArray(armings.id, piece))));
  return found;
}

/** Which armings tokens open: ids by the hashes of the tokens. */
export async function idsByTokens(
  db: Db | Tx,
  hashes: readonly string[],
): Promise<Map<string | null, string>> {
  const rows = await db
    .select({ id: armings.id, tokenHash: armings.tokenHash })
    .from(armings)
    .where(sql`${armings.tokenHash} in (select value from json_each(${JSON.stringify(hashes)}))`);
  return new Map(rows.map(({ id, tokenHash }) => [tokenHash, id]));
}

/** The newest arming of a machine; null when it never was. */
export async function ofMachine(db: Db | Tx, machineId: string): Promise<ArmingRow | null> {
  const found = await db
    .select()
    .from(armings)
    .where(eq(armings.machineId, machineId))
    .orderBy(NEWEST)
    .limit(1);
  return sound(found)[0] ?? null;
}

/** Which of these machines were ever armed. */
export async function everArmed(db: Db | Tx, machineIds: readonly string[]): Promise<Set<string>> {
  if (machineIds.length === 0) return new Set();
  const rows = await db
    .selectDistinct({ id: armings.machineId })
    .from(armings)
    .where(inArray(armings.machineId, [...machineIds]));
  return new Set(rows.map(({ id }) => id));
}

/** The newest arming of a build; null when it never was. */
export async function ofBuild(db: Db | Tx, buildId: string): Promise<ArmingRow | null> {
  const found = await db.select().from(armings).where(eq(armings.buildId, buildId)).orderBy(NEWEST).limit(1);
  return sound(found)[0] ?? null;
}

const idsOf = (rows: readonly { id: string }[]): string[] => rows.map(({ id }) => id);

/** Ids of the newest armings, newest first, and of those that end after a moment, however many there are. */
export const newestIds = async (db: Db | Tx, most: number, endAfter: string): Promise<string[]> =>
  idsOf(
    await db
      .select({ id: armings.id })
      .from(armings)
      .where(
        or(
          gt(armings.until, endAfter),
          sql`rowid in (select rowid from armings order by rowid desc limit ${most})`,
        ),
      )
      .orderBy(NEWEST),
  );

/** Ids of the armings whose machines were given their script and that end after a moment. */
export const givenIds = async (db: Db | Tx, endAfter: string): Promise<string[]> =>
  idsOf(
    await db
      .select({ id: armings.id })
      .from(armings)
      .where(and(gt(armings.until, endAfter), isNotNull(armings.tokenHash))),
  );

/** How many armings there are. */
export const count = (db: Db | Tx): Promise<number> => db.$count(armings);

/** Gives an arming another token; the one before it opens nothing any more. */
export async function setToken(tx: Tx, id: string, tokenHash: string): Promise<void> {
  await tx.update(armings).set({ tokenHash }).where(eq(armings.id, id));
}

/** What was asked or told, by a MAC where no arming is for it. */
export interface NewBoot {
  armingId: string | null;
  mac: string;
  event: BootEvent;
  stamp: changeRows.Stamp;
}

/** Rows in their order, in one statement that is the same for any number of them: a thousand machines tell something every second. */
const written = (
  tx: Tx,
  rows: readonly { armingId: string | null; mac: string; at: string; event: BootEvent }[],
) =>
  tx.run(sql`insert into boot_events (arming_id, mac, at, event)
    select value ->> 'armingId', value ->> 'mac', value ->> 'at', value -> 'event'
    from json_each(${JSON.stringify(rows)}) order by key`);

/** Adds what was asked or told, in its order; of armings it is told to pages as a change, as writes of documents are. */
export async function add(tx: Tx, told: readonly NewBoot[]): Promise<void> {
  if (told.length === 0) return;
  await written(
    tx,
    told.map(({ armingId, mac, event, stamp: { at } }) => ({ armingId, mac, at, event })),
  );
  // Nobody else writes within this transaction, so that these are the last places.
  const before = (await lastPlace(tx)) - told.length;
  await changeRows.addAll(
    tx,
    told.flatMap(({ armingId: id, stamp }, i) =>
      id === null ? [] : [{ kind: "arming", id, version: before + i + 1, ...stamp }],
    ),
  );
}

/** Adds what was asked that no arming is for, in its order, and forgets the oldest but for so many. */
export async function addStrangers(
  tx: Tx,
  asked: readonly { mac: string; at: string; event: BootEvent }[],
  kept: number,
): Promise<void> {
  await written(
    tx,
    asked.map((a) => ({ ...a, armingId: null })),
  );
  await tx.run(sql`delete from boot_events where arming_id is null and seq <=
    (select seq from boot_events where arming_id is null order by seq desc limit 1 offset ${kept})`);
}

/** What is no JSON is no event, as what has another shape. */
function parsed(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return null;
  }
}

const logged = (rows: readonly { at: string; event: unknown }[]): LoggedBoot[] =>
  rows.flatMap(({ at, event }) => {
    const read = bootEventSchema.safeParse(event);
    return read.success ? [{ at, event: read.data }] : [];
  });

/** What an arming was asked for and told, in its order. */
export const log = async (db: Db | Tx, armingId: string): Promise<LoggedBoot[]> =>
  logged(
    await db
      .select({ at: bootEvents.at, event: bootEvents.event })
      .from(bootEvents)
      .where(eq(bootEvents.armingId, armingId))
      .orderBy(asc(bootEvents.seq)),
  );

/** The last place that anything that was asked or told has among all; they grow, and 0 is before the first. */
export async function lastPlace(db: Db | Tx): Promise<number> {
  const [row] = await db.select({ seq: max(bootEvents.seq) }).from(bootEvents);
  return row?.seq ?? 0;
}

/** The same of several armings, by their ids, behind a place, each with its own. */
export async function logs(
  db: Db | Tx,
  ids: readonly string[],
  behind = 0,
): Promise<Map<string, (LoggedBoot & { seq: number })[]>> {
  const found = new Map<string, (LoggedBoot & { seq: number })[]>(ids.map((id) => [id, []]));
  if (ids.length === 0) return found;
  const { seq, armingId, at, event } = bootEvents;
  // Of what was told lately, that of all is read: a list of thousands of ids takes longer than those few.
  const which =
    behind > 0
      ? sql`${seq} > ${behind} and ${armingId} is not null`
      : sql`${armingId} in (select value from json_each(${JSON.stringify(ids)}))`;
  // All in one value: the driver takes longer for each row than for what stands in it.
  const [row] = await db.all<{ all: string }>(
    sql`select json_group_array(json_array(seq, arming_id, at, event)) as "all"
      from (select ${seq}, ${armingId}, ${at}, ${event} from ${bootEvents} where ${which} order by ${seq})`,
  );
  for (const [place, of, when, text] of JSON.parse(row?.all ?? "[]") as [number, string, string, string][])
    found
      .get(of)
      ?.push(...logged([{ at: when, event: parsed(text) }]).map((one) => ({ ...one, seq: place })));
  return found;
}

/** The last that each MAC asked that no arming is for, newest first. */
export async function strangers(
  db: Db | Tx,
  most: number,
): Promise<{ mac: string; times: number; last: LoggedBoot }[]> {
  const newestOf = db
    .select({
      seq: max(bootEvents.seq).as("last_seq"),
      times: sql<number>`count(*)`.as("times"),
    })
    .from(bootEvents)
    .where(isNull(bootEvents.armingId))
    .groupBy(bootEvents.mac)
    .as("newest");
  const rows = await db
    .select({ mac: bootEvents.mac, at: bootEvents.at, event: bootEvents.event, times: newestOf.times })
    .from(bootEvents)
    // The newest of a MAC by its number, which no two rows have.
    .innerJoin(newestOf, eq(newestOf.seq, bootEvents.seq))
    .orderBy(desc(bootEvents.seq))
    .limit(most);
  return rows.flatMap(({ mac, times, ...row }) => logged([row]).map((last) => ({ mac, times, last })));
}

/** How many MACs have asked that no arming is for. */
export async function strangersInAll(db: Db | Tx): Promise<number> {
  const [row] = await db
    .select({ macs: sql<number>`count(distinct ${bootEvents.mac})` })
    .from(bootEvents)
    .where(isNull(bootEvents.armingId));
  return row?.macs ?? 0;
}

/** The last that a MAC asked that no arming is for; null when it never did. */
export async function lastStranger(db: Db | Tx, mac: string): Promise<LoggedBoot | null> {
  const rows = await db
    .select({ at: bootEvents.at, event: bootEvents.event })
    .from(bootEvents)
    .where(and(isNull(bootEvents.armingId), eq(bootEvents.mac, mac)))
    .orderBy(desc(bootEvents.seq))
    .limit(1);
  return logged(rows)[0] ?? null;
}
