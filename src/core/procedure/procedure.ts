import { z } from "zod";
import { defineDocument } from "../document";
import { sheetSchema } from "../sheet";
import { expectationSchema } from "../verify";
import { operationSchema } from "../work";
import { asProcedure, upgradedSteps } from "./older";

/** What all procedures have. */
const common = {
  schemaVersion: z.literal(3),
  /** What it is called by: the number of its sheet, "B-0001", or its own, "D-0001". */
  number: z.string(),
  subject: z.string(),
  machine: z.object({
    /** Null where it is done on no machine of the register. */
    id: z.string().nullable(),
    name: z.string(),
    line: z.string(),
    /** Maker and model: what times are learned for. */
    model: z.string(),
    /** Known defects at the start, shown beside every result. */
    defects: z.array(z.string()),
  }),
  site: z.object({ name: z.string(), timeZone: z.string() }),
  steps: z.array(operationSchema),
  expectations: z.array(expectationSchema),
  findings: z.array(
    z.object({
      label: z.string(),
      severity: z.string(),
      title: z.string(),
      says: z.string(),
      at: z.string(),
      waiver: z.object({ reason: z.string(), by: z.string(), at: z.string() }).nullable(),
    }),
  ),
};

/** What a build stands on: its sheet, and what the sheet chose, in words. */
const buildBasisSchema = z.object({
  revision: z.string(),
  image: z.object({ name: z.string(), check: z.string() }),
  profile: z.string(),
  management: z.string(),
  /** What becomes of the machine's drives, by name; `look` is the name without its serial, for where that is asked for. */
  drives: z.object({
    target: z.array(z.object({ id: z.string(), name: z.string(), look: z.string(), holds: z.string() })),
    leftAlone: z.array(z.string()),
    free: z.array(z.string()),
  }),
  sheet: sheetSchema,
});
export type BuildBasis = z.infer<typeof buildBasisSchema>;

/** What a run carries out: frozen when it starts, so that a later edit cannot change what was done. */
export const procedureSchema = z.discriminatedUnion("kind", [
  z.object({ ...common, kind: z.literal("build"), basis: buildBasisSchema }),
  /** Without a sheet: a change of a running machine, a drill, a practice on a simulated one. */
  z.object({
    ...common,
    kind: z.enum(["change", "drill", "practice"]),
    basis: z.object({
      /** What it is to show, as a question. */
      question: z.string(),
    }),
  }),
]);
export type Procedure = z.infer<typeof procedureSchema>;
export type ProcedureKind = Procedure["kind"];
export type BuildProcedure = Extract<Procedure, { kind: "build" }>;

export const procedureDocument = defineDocument({
  kind: "run",
  version: 3,
  schema: procedureSchema,
  upgrades: { 1: upgradedSteps, 2: asProcedure },
  lines: "anywhere",
});
