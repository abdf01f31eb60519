import { z } from "zod";
import { exportSchema, type Export } from "./export-file";

const { shape } = exportSchema;
const id = z.string().min(1).max(60);
const time = z.iso.datetime();

/** One thing that an installation keeps, by kind: what an export file lists and an archive holds in files of their own. */
export const itemSchema = z.discriminatedUnion("kind", [
  shape.sites.element.extend({ kind: z.literal("site") }),
  shape.profiles.element.extend({ kind: z.literal("profile") }),
  shape.machines.element.extend({ kind: z.literal("machine") }),
  shape.drives.unwrap().element.extend({ kind: z.literal("drive") }),
  /** All readings of one machine. */
  z.object({
    kind: z.literal("readings"),
    machineId: id,
    readings: z.array(shape.readings.unwrap().element.shape.reading),
  }),
  shape.compatNotes.unwrap().element.extend({ kind: z.literal("note") }),
  shape.images.element.extend({ kind: z.literal("image") }),
  shape.builds.element.extend({ kind: z.literal("build") }),
  shape.runs.element.extend({ kind: z.literal("run") }),
  shape.transfers.unwrap().element.extend({ kind: z.literal("transfer") }),
  shape.times.unwrap().element.extend({ kind: z.literal("time") }),
  /** Its bytes are a file of their own, named here with its length. */
  shape.pictures
    .unwrap()
    .element.omit({ base64: true })
    .extend({ kind: z.literal("picture"), file: z.string() }),
  /** The raw texts of one import, each a file of its own. */
  z.object({
    kind: z.literal("import"),
    ...{ id, machineId: id, at: time, by: z.string() },
    changes: z.array(z.unknown()),
    texts: z.array(z.object({ name: z.string(), file: z.string() })),
  }),
  /** A row that did not read when it was exported, column by column as it stood: it comes back as damaged as it was. */
  z.object({
    kind: z.literal("damaged"),
    of: z.enum(["site", "machine", "image", "build", "run", "drive", "note"]),
    id: z.string().min(1),
    row: z.record(z.string(), z.union([z.string(), z.number(), z.null()])),
    history: shape.builds.element.shape.history.default([]),
    log: shape.runs.element.shape.log.default([]),
  }),
]);
export type Item = z.infer<typeof itemSchema>;
export type ItemKind = Item["kind"];

export interface PlacedItem {
  item: Item;
  /** Where it stands, for a person: a file of an archive, or a place in an export file. */
  place: string;
}

/** The items of an export file in the order of their kinds; pictures are left to `pictureBytes`. */
export function* itemsOf(file: Export): Generator<PlacedItem> {
  const placed = function* <T>(
    name: string,
    rows: readonly T[],
    make: (row: T) => Item,
  ): Generator<PlacedItem> {
    for (const [i, row] of rows.entries()) yield { item: make(row), place: `${name} ${i}` };
  };
  yield* placed("sites", file.sites, (row) => ({ kind: "site", ...row }));
  yield* placed("profiles", file.profiles, (row) => ({ kind: "profile", ...row }));
  yield* placed("machines", file.machines, (row) => ({ kind: "machine", ...row }));
  yield* placed("drives", file.drives, (row) => ({ kind: "drive", ...row }));
  const machines = new Set(file.readings.map((r) => r.machineId));
  yield* placed("measurements of machine", [...machines], (machineId) => ({
    ...{ kind: "readings", machineId },
    readings: file.readings.filter((r) => r.machineId === machineId).map((r) => r.reading),
  }));
  yield* placed("compatNotes", file.compatNotes, (row) => ({ kind: "note", ...row }));
  yield* placed("pictures", file.pictures, ({ base64: _, ...row }) => ({
    kind: "picture",
    ...row,
    file: row.id,
  }));
  yield* placed("images", file.images, (row) => ({ kind: "image", ...row }));
  yield* placed("builds", file.builds, (row) => ({ kind: "build", ...row }));
  // Newest first: of two open runs of one build, which older files could have, the first one to come goes on.
  yield* [...placed("runs", file.runs, (row) => ({ kind: "run", ...row }))].reverse();
  yield* placed("transfers", file.transfers, (row) => ({ kind: "transfer", ...row }));
  yield* placed("times", file.times, (row) => ({ kind: "time", ...row }));
}
