import { procedureDocument } from "../procedure";
import { z } from "zod";
import { editSchema, sheetSchema } from "../sheet";
import { upgraded } from "../document";
import { rateSampleSchema, stepTimeSchema } from "../estimate";
import { imageSchema } from "../image";
import { compatNoteSchema } from "../compat";
import { machineDocumentSchema, registerEntrySchema } from "../machine";
import { readingSchema } from "../readings";
import { fail, ok, type Result } from "../result";
import { loggedEventSchema } from "../run";
import { siteDocument } from "../site";
import { parseJson } from "../text";
import { addSeconds, secondsBetween, dayIn } from "../units";

const id = z.string().min(1).max(60);
const time = z.iso.datetime();

/** The whole installation in one open file: everything that Derrick keeps, as it keeps it. */
export const exportSchema = z.object({
  format: z.literal("derrick-export"),
  version: z.literal(1),
  exportedAt: time,
  sites: z.array(z.object({ id, document: upgraded(siteDocument.upgrades, siteDocument.schema) })),
  machines: z.array(z.object({ id, siteId: id, name: z.string(), document: machineDocumentSchema })),
  /** Profiles travel as the YAML that people write. */
  profiles: z.array(
    z.object({
      key: z.string(),
      version: z.string(),
      edition: z.number().int().positive().default(1),
      by: z.string().default(""),
      at: time.optional(),
      yaml: z.string(),
    }),
  ),
  images: z.array(z.object({ id, document: imageSchema })),
  builds: z.array(
    z.object({
      id,
      number: z.string().regex(/^B-\d{4,}$/),
      sheet: sheetSchema,
      revision: z.string().nullable(),
      history: z.array(
        z.object({
          version: z.number().int(),
          at: time,
          by: z.string(),
          letter: z.string().nullable(),
          edits: z.array(editSchema),
        }),
      ),
    }),
  ),
  runs: z.array(
    z.object({
      id,
      buildId: id,
      plan: upgraded(procedureDocument.upgrades, procedureDocument.schema),
      log: z.array(loggedEventSchema),
    }),
  ),
  drives: z.array(z.object({ key: z.string().min(1), entry: registerEntrySchema })).default([]),
  readings: z.array(z.object({ machineId: id, reading: readingSchema })).default([]),
  transfers: z.array(rateSampleSchema.extend({ runId: id, step: z.string() })).default([]),
  times: z.array(stepTimeSchema.extend({ runId: id, step: z.string() })).default([]),
  compatNotes: z.array(z.object({ id, note: compatNoteSchema })).default([]),
  pictures: z
    .array(
      z.object({
        id,
        machineId: id,
        at: time,
        by: z.string(),
        caption: z.string(),
        type: z.string(),
        base64: z.base64(),
      }),
    )
    .default([]),
});
export type Export = z.infer<typeof exportSchema>;

/** Reads an export; problems name the path inside the file. Whether it fits together is asked by `Integrity`. */
export function parseExport(text: string): Result<Export> {
  const json = parseJson(text, { depth: 100, parts: Number.POSITIVE_INFINITY });
  if (!json.ok) return json;
  const read = exportSchema.safeParse(json.value);
  return read.success
    ? ok(read.data)
    : fail(
        ...read.error.issues
          .slice(0, 10)
          .map((i) => ({ message: `${i.path.join(".") || "the file"}: ${i.message}` })),
      );
}

const TIME = /^\d{4}-\d\d-\d\dT\d\d:\d\d:\d\d(\.\d+)?Z$/;
const DATE = /^\d{4}-\d\d-\d\d$/;

/**
 * Moves every time in a value by `shiftSeconds`; dates move by whole days. Demo data so stays in the middle of its stories
 * on whatever day it is loaded.
 */
export function moveTimes(value: unknown, shiftSeconds: number): unknown {
  const days = Math.round(shiftSeconds / 86_400) * 86_400;
  const move = (at: unknown): unknown => {
    if (typeof at === "string") {
      if (TIME.test(at)) return addSeconds(at, shiftSeconds);
      return DATE.test(at) ? dayIn(addSeconds(`${at}T12:00:00Z`, days), "UTC") : at;
    }
    if (Array.isArray(at)) return at.map(move);
    if (typeof at !== "object" || at === null) return at;
    return Object.fromEntries(Object.entries(at).map(([k, v]) => [k, move(v)]));
  };
  return move(value);
}

/** Moves an export so that `exportedAt` becomes `now`. */
export const rebaseExport = (file: Export, now: string): Export =>
  exportSchema.parse(moveTimes(file, secondsBetween(file.exportedAt, now)));
