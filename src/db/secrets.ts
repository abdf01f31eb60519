import { and, eq, inArray, isNotNull, like } from "drizzle-orm";
import { sealedAs } from "@/core/parameter";
import * as changeRows from "./changes";
import type { Db, Tx } from "./client";
import { builds, secrets } from "./schema";

/** What is known of a password: no row holds one. */
export interface SecretRow {
  opens: string;
  mark: string;
  /** The hash, sealed; null once it was destroyed. */
  sealed: string | null;
  at: string;
  by: string;
  destroyedAt: string | null;
}

const told = (tx: Tx, buildId: string, stamp: changeRows.Stamp, opens: string, now: string): Promise<void> =>
  changeRows.add(tx, "secret", buildId, 1, stamp, [{ path: opens, before: null, after: now }]);

/** Keeps a mark and a sealed hash; what was kept for the same is gone then. */
export async function keep(
  tx: Tx,
  buildId: string,
  row: Pick<SecretRow, "opens" | "mark" | "sealed">,
  stamp: changeRows.Stamp,
): Promise<void> {
  const values = { buildId, ...row, ...stamp, destroyedAt: null };
  await tx
    .insert(secrets)
    .values(values)
    .onConflictDoUpdate({ target: [secrets.buildId, secrets.opens], set: values });
  await told(tx, buildId, stamp, row.opens, row.sealed === null ? "marked" : "sealed");
}

export const ofBuild = (db: Db | Tx, buildId: string): Promise<SecretRow[]> =>
  db.select().from(secrets).where(eq(secrets.buildId, buildId)).orderBy(secrets.opens);

/** What is known of the secret parameters of some builds. */
export const parameters = (
  db: Db | Tx,
  ids: readonly string[],
): Promise<(SecretRow & { buildId: string })[]> =>
  db
    .select()
    .from(secrets)
    .where(and(inArray(secrets.buildId, [...ids]), like(secrets.opens, `${sealedAs("")}%`)))
    .orderBy(secrets.opens, secrets.buildId);

/** Destroys the sealed hashes of a build, and says of how many; their marks stay. */
export async function destroy(tx: Tx, buildId: string, stamp: changeRows.Stamp): Promise<string[]> {
  const gone = await tx
    .update(secrets)
    .set({ sealed: null, destroyedAt: stamp.at })
    .where(and(eq(secrets.buildId, buildId), isNotNull(secrets.sealed)))
    .returning({ opens: secrets.opens });
  for (const { opens } of gone) await told(tx, buildId, stamp, opens, "destroyed");
  return gone.map(({ opens }) => opens).sort();
}

/** Forgets all that is known of one password; whether there was anything. */
export async function forget(
  tx: Tx,
  buildId: string,
  opens: string,
  stamp: changeRows.Stamp,
): Promise<boolean> {
  const gone = await tx
    .delete(secrets)
    .where(and(eq(secrets.buildId, buildId), eq(secrets.opens, opens)))
    .returning({ opens: secrets.opens });
  if (gone.length > 0) await told(tx, buildId, stamp, opens, "forgotten");
  return gone.length > 0;
}

/** For each of some builds, what its passwords open, and what else the same ones open, here and in other builds. */
export async function sameMarks(
  db: Db | Tx,
  ids: readonly string[],
): Promise<Map<string, { opens: string; same: string[] }[]>> {
  const found = new Map<string, { opens: string; same: string[] }[]>();
  if (ids.length === 0) return found;
  const shown = {
    ...{ buildId: secrets.buildId, opens: secrets.opens, mark: secrets.mark },
    ...{ number: builds.number, machineId: builds.machineId },
  };
  const own = await db
    .select(shown)
    .from(secrets)
    .innerJoin(builds, eq(builds.id, secrets.buildId))
    .where(inArray(secrets.buildId, [...ids]));
  if (own.length === 0) return found;
  const all = await db
    .select(shown)
    .from(secrets)
    .innerJoin(builds, eq(builds.id, secrets.buildId))
    .where(inArray(secrets.mark, [...new Set(own.map(({ mark }) => mark))]))
    .orderBy(builds.number, secrets.opens);
  for (const { buildId, opens, mark, machineId } of own) {
    // The same door of the same machine, at an earlier build, is no second one.
    const isItself = (o: (typeof all)[number]): boolean =>
      o.opens === opens && (o.buildId === buildId || (machineId !== null && o.machineId === machineId));
    const same = all
      .filter((o) => o.mark === mark && !isItself(o))
      .sort((a, b) => Number(b.buildId === buildId) - Number(a.buildId === buildId))
      .map((o) => (o.buildId === buildId ? o.opens : `${o.opens} of ${o.number}`));
    found.set(buildId, [...(found.get(buildId) ?? []), { opens, same }]);
  }
  return found;
}
