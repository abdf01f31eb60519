import type { Deed } from "@/core/stage";
import { recordReadBack, recordWipe, recordWriting, type RegisterEntry } from "@/core/machine";
import { driveRows, imageRows, type Tx } from "@/db";

/** Writes what a step did where it is kept: the register of drives with its ledger of erasures, the shelf of images. */
export async function writeDown(
  tx: Tx,
  deed: Deed,
  { at, by, run }: { at: string; by: string; run: string },
): Promise<void> {
  switch (deed.kind) {
    case "stick written": {
      const { stick, imageId, image: name, written } = deed;
      const scheme = { "as the image": null, unknown: null, legacy: "MBR", uefi: "GPT" } as const;
      return amendRow(tx, stick, at, (entry) =>
        recordWriting(entry, { imageId, name, written, scheme: scheme[written], compared: false, at }),
      );
    }
    case "stick read back":
      return amendRow(tx, deed.stick, at, recordReadBack);
    case "drives overwritten":
      for (const key of deed.drives)
        await amendRow(tx, key, at, (entry) =>
          recordWipe(entry, { at, by, method: "installed over", remark: `${deed.by}, ${run}`.slice(0, 400) }),
        );
      return;
    case "checksum compared": {
      const row = await imageRows.one(tx, deed.imageId);
      if (!row) return;
      const computed = { checksum: deed.checksum, at, by };
      await imageRows.update(tx, row.id, row.version, { ...row.image, computed }, at);
    }
  }
}

async function amendRow(
  tx: Tx,
  key: string,
  at: string,
  change: (entry: RegisterEntry) => RegisterEntry,
): Promise<void> {
  const row = await driveRows.one(tx, key);
  if (row) await driveRows.put(tx, row.key, change(row.entry), row.version + 1, at);
}
