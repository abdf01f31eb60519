import { eq } from "drizzle-orm";
import type { Db } from "./client";
import { builds, images, machines, runs, sites } from "./schema";

/** What a document is called, without reading it whole; null when it is not there. */
export type Named = "site" | "machine" | "image" | "build" | "run";

const TABLES = { site: sites, machine: machines, image: images } as const;

export async function nameOf(db: Db, kind: Named, id: string): Promise<string | null> {
  if (kind === "build" || kind === "run") {
    const of = db
      .select({ number: builds.number, machine: machines.name })
      .from(builds)
      .leftJoin(machines, eq(machines.id, builds.machineId));
    const [row] = await (kind === "build"
      ? of.where(eq(builds.id, id))
      : of.innerJoin(runs, eq(runs.buildId, builds.id)).where(eq(runs.id, id)));
    return row ? [row.number, row.machine].filter(Boolean).join(" ") : null;
  }
  const table = TABLES[kind];
  const [row] = await db.select({ name: table.name }).from(table).where(eq(table.id, id));
  return row?.name ?? null;
}
