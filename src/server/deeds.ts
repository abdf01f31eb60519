import type { Deed } from "@/core/work";
import { recordReadBack, recordWipe, recordWriting, type RegisterEntry } from "@/core/machine";
import { driveRows, imageRows, machineRows, type Stamp, type Tx } from "@/db";

/** Writes what a step did where it is kept: the register of drives with its ledger of erasures, the shelf of images. */
export async function writeDown(
  tx: Tx,
  deed: Deed,
  { run, ...stamp }: Stamp & { run: string },
): Promise<void> {
  const { at, by } = stamp;
  switch (deed.kind) {
    case "stick written": {
      const { stick, imageId, image: name, written } = deed;
      const scheme = { "as the image": null, unknown: null, legacy: "MBR", uefi: "GPT" } as const;
      return amendRow(tx, stick, stamp, (entry) =>
        recordWriting(entry, { imageId, name, written, scheme: scheme[written], compared: false, at }),
      );
    }
    case "stick read back":
      return amendRow(tx, deed.stick, stamp, recordReadBack);
    case "drives overwritten":
      for (const key of deed.drives)
        await amendRow(tx, key, stamp, (entry) =>
          recordWipe(entry, { at, by, method: "installed over", remark: `${deed.by}, ${run}`.slice(0, 400) }),
        );
      return;
    case "keys noted": {
      const row = await machineRows.one(tx, deed.machine);
      if (!row) return;
      const { typed } = row.document;
      const document = { ...row.document, typed: { ...typed, keys: { ...typed.keys, ...deed.keys } } };
      await machineRows.update(tx, { ...row, document }, stamp);
      return;
    }
    case "checksum compared": {
      const row = await imageRows.one(tx, deed.imageId);
      if (!row) return;
      const computed = { checksum: deed.checksum, at, by };
      await imageRows.update(tx, row.id, row.version, { ...row.image, computed }, stamp);
    }
  }
}

async function amendRow(
  tx: Tx,
  key: string,
  stamp: Stamp,
  change: (entry: RegisterEntry) => RegisterEntry,
): Promise<void> {
  const row = await driveRows.one(tx, key);
  if (row) await driveRows.put(tx, row.key, change(row.entry), row, stamp);
}
