import type { Item } from "@/core/record";
import { parseProfileYaml } from "@/core/image";
import {
  buildRows,
  compatRows,
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
  type Stamp,
  type Tx,
} from "@/db";
import type { Arriving } from "./read";

/** Writes one item, as it was; `open` remembers the builds whose open run is in already. */
export async function insertItem(
  tx: Tx,
  { item, files }: Arriving,
  stamp: Stamp,
  open: Set<string>,
): Promise<void> {
  switch (item.kind) {
    case "site":
      return siteRows.insert(tx, item.id, item.document, stamp);
    case "profile": {
      const { kind: _, at: updatedAt = stamp.at, ...row } = item;
      const profile = parseProfileYaml(row.yaml);
      return profileRows.add(tx, { ...row, name: profile.ok ? profile.value.name : row.key, updatedAt });
    }
    case "machine":
      return machineRows.insert(tx, item.id, item.siteId, item.name, item.document, stamp);
    case "drive":
      return driveRows.put(tx, item.key, item.entry, null, stamp);
    case "readings":
      return readingRows.add(tx, item.machineId, item.readings);
    case "note":
      return compatRows.insert(tx, item.id, item.note, stamp);
    case "picture": {
      const { kind: _, file: __, ...row } = item;
      return pictureRows.insert(tx, { ...row, bytes: files[0] ?? Buffer.alloc(0) });
    }
    case "import": {
      const { kind: _, texts, changes, ...row } = item;
      const named = texts.map(({ name }, i) => ({ name, text: files[i]?.toString("utf8") ?? "" }));
      return machineRows.addImport(tx, { ...row, texts: named, changes: changes as never });
    }
    case "image":
      return imageRows.insert(tx, item.id, item.document, stamp);
    case "build":
      return buildRows.restore(tx, item, stamp);
    case "run":
      return insertRun(tx, item, stamp, open);
    case "transfer": {
      const { kind: _, runId, step, ...sample } = item;
      return transferRows.put(tx, runId, step, sample);
    }
    case "time": {
      const { kind: _, runId, step, ...time } = item;
      return stepTimeRows.put(tx, runId, step, time);
    }
    case "damaged":
      await damagedRows.insertRaw(tx, item.of, item.row);
      for (const entry of item.history) await buildRows.addHistory(tx, item.id, entry);
      await runRows.restoreLog(tx, item.id, item.log, stamp);
  }
}

async function insertRun(
  tx: Tx,
  { id, buildId, plan, log }: Extract<Item, { kind: "run" }>,
  stamp: Stamp,
  open: Set<string>,
): Promise<void> {
  const startedAt = log[0]?.at ?? stamp.at;
  const handedOver = log.findLast((l) => l.event.kind === "handed over")?.at ?? null;
  // Of two open runs of one build, which older installations could have, one goes on.
  const endedAt = handedOver ?? (open.has(buildId) ? startedAt : null);
  if (endedAt === null) open.add(buildId);
  await runRows.insert(tx, { id, buildId, startedAt, endedAt, plan });
  await runRows.restoreLog(tx, id, log, stamp);
}
