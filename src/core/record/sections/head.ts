import { z } from "zod";
import { always, section } from "./section";

/** What was carried out, where, and how far it came. */
export const head = section(
  always,
  {
    /** What was carried out without a build sheet; absent of a build. */
    kind: z.enum(["change", "drill", "practice"]).optional(),
    /** What it was called by; absent of a build, which is called by its sheet. */
    number: z.string().optional(),
    /** What it was to show. */
    question: z.string().optional(),
    sheet: z.string().optional(),
    revision: z.string().optional(),
    subject: z.string(),
    state: z.enum(["running", "stopped", "steps done", "handed over"]),
    site: z.string(),
    timeZone: z.string(),
    machine: z.object({ name: z.string(), summary: z.string() }),
    /** Known defects of the machine when the run began. */
    defects: z.array(z.string()).default([]),
  },
  ({ procedure, state }) => ({
    ...(procedure.kind === "build"
      ? { sheet: procedure.number, revision: procedure.basis.revision }
      : { kind: procedure.kind, number: procedure.number, question: procedure.basis.question }),
    subject: procedure.subject,
    state: state.status,
    site: procedure.site.name,
    timeZone: procedure.site.timeZone,
    machine: { name: procedure.machine.name, summary: procedure.machine.line },
    defects: procedure.machine.defects,
  }),
);
