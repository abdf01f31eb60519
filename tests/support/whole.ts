import { exportSchema, type Export } from "@/core/record";
import { everything } from "@/server/archive/items";
import { database } from "@/server/database";

/** All that the installation of a test keeps, as the lists of an export file: what a test compares before and after. */
export async function exportAll(): Promise<Export> {
  const { snapshot } = await database();
  return snapshot(async (tx) => {
    const all: Record<string, unknown[]> = {};
    const add = (list: string, ...rows: unknown[]) => (all[list] = [...(all[list] ?? []), ...rows]);
    for await (const { item, files } of everything(tx)) {
      const { kind, ...row } = item;
      if (item.kind === "readings")
        add("readings", ...item.readings.map((reading) => ({ machineId: item.machineId, reading })));
      else if (kind === "picture") add("pictures", { ...row, base64: files[0]!.bytes.toString("base64") });
      else if (kind === "note") add("compatNotes", row);
      else add(`${kind}s`, row);
    }
    const empty = { sites: [], machines: [], profiles: [], images: [], builds: [], runs: [] };
    const head = { format: "derrick-export", version: 1, exportedAt: new Date().toISOString() };
    return exportSchema.parse({ ...empty, ...head, ...all });
  });
}
