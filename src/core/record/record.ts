import { z } from "zod";
import type { Procedure } from "../procedure";
import { foldRun, happened, type LoggedEvent } from "../run";
import { dates, drives, installed, notes } from "./sections/build";
import { acceptance, defaultLogIns, deviations, findings, saved } from "./sections/found";
import { head } from "./sections/head";
import { clock, log, times } from "./sections/log";
import type { Section } from "./sections/section";

/** The parts of a record, in the order of its file. */
const SECTIONS: readonly Section[] = [
  ...[head, installed, defaultLogIns, saved, drives, acceptance, deviations, findings],
  ...[times, dates, clock, log, notes],
];

/** What was carried out, as planned and as found. Parts that only a build has are absent of other procedures. */
export const recordSchema = z.object({
  format: z.literal("derrick-record"),
  version: z.literal(1),
  ...head.shape,
  ...installed.shape,
  ...defaultLogIns.shape,
  ...saved.shape,
  ...drives.shape,
  ...acceptance.shape,
  ...deviations.shape,
  ...findings.shape,
  ...times.shape,
  ...dates.shape,
  ...clock.shape,
  ...log.shape,
  ...notes.shape,
});
export type RunRecord = z.infer<typeof recordSchema>;

export const recordJsonSchema = (): unknown => z.toJSONSchema(recordSchema);

/** Draws the record from what the run froze at its start and from its log. Same log, same record. */
export function makeRecord(procedure: Procedure, entries: readonly LoggedEvent[]): RunRecord {
  const state = foldRun(procedure.steps, entries);
  const ground = { procedure, log: entries, state, times: happened(entries) };
  const parts = SECTIONS.filter((s) => s.when(procedure.kind)).map((s) => s.of(ground));
  return recordSchema.parse(Object.assign({ format: "derrick-record", version: 1 }, ...parts));
}
