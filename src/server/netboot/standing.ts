import { ArmingWalk, type ArmingState } from "@/core/netboot";
import { bootRows, type Db, type Tx } from "@/db";
import { openedDatabase } from "../database";

/** How far the log of an arming was heard, and what it came to. */
interface Standing {
  walk: ArmingWalk;
  /** All that stands up to this place among all that was asked and told is in it. */
  upTo: number;
}

/** More armings than a site has at once; of those that were looked at longest ago, the logs are heard anew. */
const MOST_KEPT = 10_000;

/** What was read already: armings, none of which is ever changed, and how far each was heard. */
interface Kept {
  armings: Map<string, bootRows.ArmingRow>;
  standings: Map<string, Standing>;
}

/** Of one database each: another one tells other things under the same ids. Next loads server code in several bundles. */
const shared = globalThis as { derrickBoots?: WeakMap<object, Kept> };
function kept(): Kept {
  shared.derrickBoots ??= new WeakMap();
  const of = openedDatabase();
  const known = shared.derrickBoots.get(of) ?? { armings: new Map(), standings: new Map() };
  shared.derrickBoots.set(of, known);
  return known;
}

/** Puts in what was looked at last; of more than are kept, what was put in longest ago goes. */
function keep<T>(known: Map<string, T>, id: string, value: T): void {
  known.delete(id);
  if (known.size >= MOST_KEPT) known.delete(known.keys().next().value!);
  known.set(id, value);
}

/** Armings by their ids, in the order of the ids; those that do not read arm nothing, and are left out. */
export async function armingsOf(db: Db | Tx, ids: readonly string[]): Promise<bootRows.ArmingRow[]> {
  const { armings } = kept();
  const missing = await bootRows.some(
    db,
    ids.filter((id) => !armings.has(id)),
  );
  const fresh = new Map(missing.map((row) => [row.id, row]));
  const rows = ids.flatMap((id) => fresh.get(id) ?? armings.get(id) ?? []);
  for (const row of missing) keep(armings, row.id, row);
  return rows;
}

type Row = Pick<bootRows.ArmingRow, "id" | "arming">;

/** The standing of each, heard on from where it was kept: an installation tells thousands of things, and is looked at at each. */
async function heard(
  db: Db | Tx,
  rows: readonly Row[],
): Promise<{ standings: Map<string, Standing>; upTo: number }> {
  const { standings: known } = kept();
  const upTo = await bootRows.lastPlace(db);
  // What a transaction of somebody else took back may be kept no further than it goes.
  const base = new Map(
    rows.map(({ id, arming }) => {
      const before = known.get(id);
      return [id, before && before.upTo <= upTo ? before : { walk: ArmingWalk.of(arming), upTo: 0 }];
    }),
  );
  const behind = [...base].filter(([, { upTo: at }]) => at < upTo);
  const fresh = behind.filter(([, { upTo: at }]) => at === 0).map(([id]) => id);
  const later = behind.filter(([, { upTo: at }]) => at > 0);
  const logs = new Map([
    ...(await bootRows.logs(db, fresh)),
    ...(await bootRows.logs(
      db,
      later.map(([id]) => id),
      Math.min(...later.map(([, { upTo: at }]) => at)),
    )),
  ]);
  const standings = new Map(
    [...base].map(([id, { walk, upTo: at }]) => {
      const news = (logs.get(id) ?? []).filter(({ seq }) => seq > at && seq <= upTo);
      return [id, { walk: walk.on(news), upTo }];
    }),
  );
  return { standings, upTo };
}

/** How far armings are, by their ids; what was heard is kept for the next look. Never within a transaction, which may be taken back. */
export async function standingsOf(db: Db, rows: readonly Row[]): Promise<Map<string, ArmingWalk>> {
  const { standings } = await heard(db, rows);
  const { standings: known } = kept();
  for (const [id, standing] of standings)
    if ((known.get(id)?.upTo ?? 0) <= standing.upTo) keep(known, id, standing);
  return new Map([...standings].map(([id, { walk }]) => [id, walk]));
}

/** The same of one arming within a transaction, with what that has written; nothing of it is kept. */
export async function standingIn(tx: Db | Tx, row: Row, now: string): Promise<ArmingState> {
  const { standings } = await heard(tx, [row]);
  return standings.get(row.id)!.walk.at(now);
}

/** How far armings are as a transaction sees them. */
export async function standingsIn(tx: Db | Tx, rows: readonly Row[]): Promise<Map<string, ArmingWalk>> {
  const { standings } = await heard(tx, rows);
  return new Map([...standings].map(([id, { walk }]) => [id, walk]));
}
