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

/** Of one database each: another one tells other things under the same ids. Next loads server code in several bundles. */
const shared = globalThis as { derrickStandings?: WeakMap<object, Map<string, Standing>> };
function kept(): Map<string, Standing> {
  shared.derrickStandings ??= new WeakMap();
  const of = openedDatabase();
  const known = shared.derrickStandings.get(of) ?? new Map<string, Standing>();
  shared.derrickStandings.set(of, known);
  return known;
}

type Row = Pick<bootRows.ArmingRow, "id" | "arming">;

/** The standing of each, heard on from where it was kept: an installation tells thousands of things, and is looked at at each. */
async function heard(
  db: Db | Tx,
  rows: readonly Row[],
): Promise<{ standings: Map<string, Standing>; upTo: number }> {
  const known = kept();
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
  const known = kept();
  for (const [id, standing] of standings) {
    if ((known.get(id)?.upTo ?? 0) > standing.upTo) continue;
    known.delete(id);
    if (known.size >= MOST_KEPT) known.delete(known.keys().next().value!);
    known.set(id, standing);
  }
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
