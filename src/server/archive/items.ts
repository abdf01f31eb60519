import type { Item } from "@/core/record";
import {
  buildRows,
  compatRows,
  DamagedError,
  damagedRows,
  driveRows,
  imageRows,
  machineRows,
  pictureRows,
  profileRows,
  readingRows,
  runRows,
  siteRows,
  stepTimeRows,
  transferRows,
  type Kind,
  type Tx,
} from "@/db";

/** An item on its way out, with the files that it names. */
export interface Leaving {
  item: Item;
  files: { name: string; bytes: Buffer }[];
}

const ALL_HISTORY = 1_000_000;
const ENDINGS: Record<string, string> = { "image/png": "png", "image/jpeg": "jpg", "image/webp": "webp" };

/** A row by its id, or as it stands when it does not read. */
async function* rowsOf(
  tx: Tx,
  kind: Kind,
  read: (id: string) => Promise<Item | null>,
): AsyncGenerator<Leaving> {
  for (const id of await damagedRows.ids(tx, kind)) {
    try {
      const item = await read(id);
      if (item) yield { item, files: [] };
    } catch (error) {
      if (!(error instanceof DamagedError)) throw error;
      const row = await damagedRows.rawRow(tx, kind, id);
      const history = kind === "build" ? await buildRows.history(tx, id, ALL_HISTORY) : [];
      const log = kind === "run" ? await runRows.log(tx, id) : [];
      yield { item: { kind: "damaged", of: kind, id, row, history, log }, files: [] };
    }
  }
}

/** Everything that the installation keeps, one after the other: only one item is in memory at a time. */
export async function* everything(tx: Tx): AsyncGenerator<Leaving> {
  yield* rowsOf(tx, "site", async (id) => {
    const row = await siteRows.one(tx, id);
    return row && { kind: "site", id, document: row.site };
  });
  for (const { updatedAt: at, name: _, ...profile } of await profileRows.all(tx))
    yield { item: { kind: "profile", ...profile, at }, files: [] };
  yield* rowsOf(tx, "machine", async (id) => {
    const row = await machineRows.one(tx, id);
    return row && { kind: "machine", id, siteId: row.siteId, name: row.name, document: row.document };
  });
  yield* rowsOf(tx, "drive", async (key) => {
    const row = await driveRows.one(tx, key);
    return row && { kind: "drive", key, entry: row.entry };
  });
  for (const machineId of await damagedRows.ids(tx, "machine")) {
    const readings = await readingRows.of(tx, machineId);
    if (readings.length > 0) yield { item: { kind: "readings", machineId, readings }, files: [] };
  }
  yield* rowsOf(tx, "note", async (id) => {
    const row = await compatRows.one(tx, id);
    return row && { kind: "note", id, note: row.note };
  });
  yield* picturesOf(tx);
  yield* importsOf(tx);
  yield* rowsOf(tx, "image", async (id) => {
    const row = await imageRows.one(tx, id);
    return row && { kind: "image", id, document: row.image };
  });
  yield* rowsOf(tx, "build", async (id) => {
    const row = await buildRows.one(tx, id);
    if (!row) return null;
    const { number, sheet, revision } = row;
    return {
      kind: "build",
      id,
      number,
      sheet,
      revision,
      history: await buildRows.history(tx, id, ALL_HISTORY),
    };
  });
  yield* rowsOf(tx, "run", async (id) => {
    const row = await runRows.one(tx, id);
    return row && { kind: "run", id, buildId: row.buildId, plan: row.plan, log: await runRows.log(tx, id) };
  });
  for (const row of await transferRows.all(tx))
    yield { item: { kind: "transfer", ...row } as Item, files: [] };
  for (const row of await stepTimeRows.all(tx)) yield { item: { kind: "time", ...row }, files: [] };
}

async function* picturesOf(tx: Tx): AsyncGenerator<Leaving> {
  for (const id of await pictureRows.ids(tx)) {
    const row = await pictureRows.one(tx, id);
    if (!row) continue;
    const { bytes, ...rest } = row;
    const file = `pictures/${id}.${ENDINGS[row.type] ?? "bin"}`;
    yield { item: { kind: "picture", ...rest, file }, files: [{ name: file, bytes }] };
  }
}

async function* importsOf(tx: Tx): AsyncGenerator<Leaving> {
  for (const id of await machineRows.importIds(tx)) {
    const row = await machineRows.oneImport(tx, id);
    if (!row) continue;
    const texts = Array.isArray(row.texts) ? (row.texts as { name: string; text: string }[]) : [];
    const files = texts.map(({ text }, i) => ({ name: `imports/${id}/${i}.txt`, bytes: Buffer.from(text) }));
    const { machineId, at, by } = row;
    const changes = Array.isArray(row.changes) ? row.changes : [];
    const named = texts.map(({ name }, i) => ({ name, file: files[i]!.name }));
    yield { item: { kind: "import", id, machineId, at, by, changes, texts: named }, files };
  }
}
