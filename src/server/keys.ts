import { createHash } from "node:crypto";
import { keyMatrix, type KeyedMachine, type SiteKey, type SiteSecret } from "@/core/identity";
import { dayAt } from "@/core/site";
import { buildRows, secretRows, siteRows } from "@/db";
import type { Desk } from "./desk";

export interface KeysView {
  name: string;
  room: string;
  today: string;
  /** Machines of the site that have a sheet. */
  machines: KeyedMachine[];
  keys: SiteKey[];
  secrets: SiteSecret[];
}

/** Which keys go to which machines of a site and when they end, with the secrets that go to them; null without the site. */
export async function keysView(desk: Desk, siteId: string): Promise<KeysView | null> {
  const row = await siteRows.one(desk.db, siteId);
  if (!row) return null;
  const holders = await buildRows.accountsPlanned(desk.db);
  const own = holders.filter((h) => h.siteId === siteId);
  const read = holders.flatMap(({ accounts, ...h }) => (accounts ? [{ ...h, accounts }] : []));
  const keys = keyMatrix(read).flatMap((key): SiteKey[] => {
    const doors = key.doors.filter((d) => d.siteId === siteId);
    const elsewhere = new Set(key.doors.filter((d) => d.siteId !== siteId).map((d) => d.machineId)).size;
    const digest = createHash("sha256").update(Buffer.from(key.blob, "base64")).digest("base64");
    return doors.length === 0
      ? []
      : [{ ...key, doors, elsewhere, fingerprint: `SHA256:${digest.replace(/=+$/, "")}` }];
  });
  return {
    ...{ name: row.site.name, room: row.site.room, today: dayAt(row.site, desk.now()), keys },
    machines: own.map(({ machineId, machine, accounts, build, number }) => ({
      ...{ id: machineId, name: machine, build, number, isRead: accounts !== null },
    })),
    secrets: await secretsOf(desk, own),
  };
}

async function secretsOf(
  { db }: Desk,
  own: readonly { build: string; number: string; machine: string }[],
): Promise<SiteSecret[]> {
  const rows = await secretRows.parameters(
    db,
    own.map((o) => o.build),
  );
  const marks = await secretRows.sameMarks(
    db,
    own.map((o) => o.build),
  );
  const names = [...new Set(rows.map((r) => r.opens))];
  return names.map((opens) => ({
    name: opens.replace(/^parameter /, ""),
    sheets: rows
      .filter((r) => r.opens === opens)
      .flatMap(({ buildId, sealed }) => {
        const at = own.find((o) => o.build === buildId);
        const same = marks.get(buildId)?.find((m) => m.opens === opens)?.same ?? [];
        const state = sealed === null ? ("destroyed" as const) : ("sealed" as const);
        return at ? [{ ...at, state, shared: same.length > 0 }] : [];
      }),
  }));
}
