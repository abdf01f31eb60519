import { z } from "zod";
import { editSchema, sheetSchema } from "../build";
import { rateSampleSchema, stepTimeSchema } from "../estimate";
import { imageSchema } from "../image";
import { compatNoteSchema } from "../compat";
import { machineDocumentSchema, registerEntrySchema } from "../machine";
import { readingSchema } from "../readings";
import { fail, ok, type Result } from "../result";
import { loggedEventSchema, runPlanSchema } from "../run";
import { siteSchema } from "../site";
import { parseJson } from "../text";
import { addSeconds, secondsBetween } from "../units";

const id = z.string().min(1).max(60);
const time = z.iso.datetime();

/** The whole installation in one open file: everything that Derrick keeps, as it keeps it. */
export const exportSchema = z.object({
  format: z.literal("derrick-export"),
  version: z.literal(1),
  exportedAt: time,
  sites: z.array(z.object({ id, document: siteSchema })),
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
  runs: z.array(z.object({ id, buildId: id, plan: runPlanSchema, log: z.array(loggedEventSchema) })),
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

/** Reads an export; problems name the path inside the file. References that lead nowhere are problems too. */
export function parseExport(text: string): Result<Export> {
  const json = parseJson(text, { depth: 100, parts: Number.POSITIVE_INFINITY });
  if (!json.ok) return json;
  const read = exportSchema.safeParse(json.value);
  if (!read.success)
    return fail(
      ...read.error.issues
        .slice(0, 10)
        .map((i) => ({ message: `${i.path.join(".") || "the file"}: ${i.message}` })),
    );
  const lost = danglingReferences(read.data);
  return lost.length > 0 ? fail(...lost.map((message) => ({ message }))) : ok(read.data);
}

function danglingReferences(file: Export): string[] {
  const sites = new Set(file.sites.map((s) => s.id));
  const machines = new Set(file.machines.map((m) => m.id));
  const builds = new Set(file.builds.map((b) => b.id));
  const runs = new Set(file.runs.map((r) => r.id));
  return [
    ...file.machines
      .filter((m) => !sites.has(m.siteId))
      .map((m) => `machine ${m.name} is at the site ${m.siteId}, which is not in the file`),
    ...[...file.readings, ...file.pictures]
      .filter((r) => !machines.has(r.machineId))
      .map((r) => `a reading or picture is of the machine ${r.machineId}, which is not in the file`),
    ...[...file.transfers, ...file.times]
      .filter((t) => !runs.has(t.runId))
      .map((t) => `a transfer or a wait was measured by the run ${t.runId}, which is not in the file`),
    ...file.runs
      .filter((r) => !builds.has(r.buildId))
      .map((r) => `run ${r.id} is of the build ${r.buildId}, which is not in the file`),
  ];
}

const TIME = /^\d{4}-\d\d-\d\dT\d\d:\d\d:\d\d(\.\d+)?Z$/;
const DATE = /^\d{4}-\d\d-\d\d$/;

/**
 * Moves every time in an export by the same amount, so that `exportedAt` becomes `now`: demo data stays in the middle
 * of its stories on whatever day it is loaded. Dates move by whole days.
 */
export function rebaseExport(file: Export, now: string): Export {
  const shift = secondsBetween(file.exportedAt, now);
  const days = Math.round(shift / 86_400) * 86_400;
  const move = (value: unknown): unknown => {
    if (typeof value === "string") {
      if (TIME.test(value)) return addSeconds(value, shift);
      return DATE.test(value) ? addSeconds(`${value}T12:00:00Z`, days).slice(0, 10) : value;
    }
    if (Array.isArray(value)) return value.map(move);
    if (typeof value !== "object" || value === null) return value;
    return Object.fromEntries(Object.entries(value).map(([k, v]) => [k, move(v)]));
  };
  return exportSchema.parse(move(file));
}
