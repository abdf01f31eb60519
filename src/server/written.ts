import {
  edited,
  editedBack,
  type Edit,
  type Editable,
  type WrittenAnswer,
  type WrittenView,
} from "@/core/document";
import { imageEditable, type Image, type publishedSchema } from "@/core/image";
import { machineEditable, type MachineDocument, type writtenSchema } from "@/core/machine";
import type { Result } from "@/core/result";
import { siteEditable, type Site, type siteSchema } from "@/core/site";
import { changeRows, imageRows, machineRows, siteRows, type Db, type Stamp, type Tx } from "@/db";
import type { z } from "zod";
import { no, STALE } from "./answer";
import type { Desk } from "./desk";

/** Documents of a kind that is written in forms that save by themselves. */
export interface WrittenKind<D, S extends z.ZodType> {
  kind: "site" | "image" | "machine";
  editable: Editable<D, S>;
  one(db: Db | Tx, id: string): Promise<{ version: number; updatedAt: string; document: D } | null>;
  save(tx: Tx, id: string, version: number, document: D, stamp: Stamp): Promise<boolean>;
}

export const SITE: WrittenKind<Site, typeof siteSchema> = {
  ...{ kind: "site", editable: siteEditable, save: siteRows.update },
  async one(db, id) {
    const row = await siteRows.one(db, id);
    return row && { ...row, document: row.site };
  },
};

export const IMAGE: WrittenKind<Image, typeof publishedSchema> = {
  ...{ kind: "image", editable: imageEditable, save: imageRows.update },
  async one(db, id) {
    const row = await imageRows.one(db, id);
    return row && { ...row, document: row.image };
  },
};

export const MACHINE: WrittenKind<MachineDocument, typeof writtenSchema> = {
  ...{ kind: "machine", editable: machineEditable, one: machineRows.one, save: machineRows.saveDocument },
};

/** The part that people write, as it stands; null when the document is gone. */
export async function writtenView<D, S extends z.ZodType>(
  desk: Desk,
  { editable, one }: WrittenKind<D, S>,
  id: string,
): Promise<WrittenView<z.output<S>> | null> {
  const row = await one(desk.db, id);
  if (!row) return null;
  const { version, updatedAt, document } = row;
  return { version, updatedAt, document: editable.partOf(document) };
}

const gone = (kind: string) => ({ ...no(`This ${kind} no longer exists.`), stale: null });

/** Decides the next document on what stands now, and writes it when that is still there. */
async function change<D, S extends z.ZodType>(
  desk: Desk,
  written: WrittenKind<D, S>,
  id: string,
  version: number | null,
  decide: (document: D) => Result<D>,
): Promise<WrittenAnswer<z.output<S>>> {
  const row = await written.one(desk.db, id);
  if (!row) return gone(written.kind);
  const stale = async (): Promise<WrittenAnswer<z.output<S>>> => {
    const [view, [last]] = await Promise.all([
      writtenView(desk, written, id),
      changeRows.of(desk.db, written.kind, id, 1),
    ]);
    return {
      ...no(STALE),
      stale: view && { view, by: last?.by ?? "somebody", at: last?.at ?? view.updatedAt },
    };
  };
  if (version !== null && row.version !== version) return stale();
  const next = decide(row.document);
  if (!next.ok) return { ok: false, problems: next.problems, stale: null };
  const stamp = desk.stamp();
  if (!(await desk.write((tx) => written.save(tx, id, row.version, next.value, stamp)))) return stale();
  const document = written.editable.partOf(next.value);
  return { ok: true, view: { document, version: row.version + 1, updatedAt: stamp.at } };
}

/** Saves edits that were made on `version`. A stale one changes nothing and returns what stands there now. */
export const saveWritten = <D, S extends z.ZodType>(
  desk: Desk,
  written: WrittenKind<D, S>,
  id: string,
  version: number,
  edits: readonly Edit[],
): Promise<WrittenAnswer<z.output<S>>> =>
  change(desk, written, id, version, (document) => edited(written.editable, document, edits, desk.stamp()));

/** Takes back the save that made a version, and nothing beside. */
export async function takeBackWritten<D, S extends z.ZodType>(
  desk: Desk,
  written: WrittenKind<D, S>,
  id: string,
  version: number,
): Promise<WrittenAnswer<z.output<S>>> {
  const entry = (await changeRows.of(desk.db, written.kind, id)).find((c) => c.version === version);
  if (!entry) return { ...no("This change is not in the history."), stale: null };
  if (entry.edits.some(changeRows.isShortened))
    return {
      ...no("The old value was too long for the history, so it cannot be restored."),
      stale: null,
    };
  return change(desk, written, id, null, (document) =>
    editedBack(written.editable, document, entry.edits, desk.stamp()),
  );
}
