import { z } from "zod";
import { acceptanceOf, logInsOf, logInWords } from "../../run";
import { acceptanceLineSchema } from "../../verify";
import { always, section, titleOf } from "./section";

const settledSchema = z.object({
  how: z.enum(["seen", "taken as it is"]),
  words: z.string(),
  found: z.string(),
  by: z.string(),
  at: z.string(),
});

/** Log-ins that existed before anybody chose one, and how long they stood open. */
export const defaultLogIns = section(
  always,
  {
    defaultLogIns: z.array(z.object({ name: z.string(), opens: z.string(), how: z.string() })).default([]),
  },
  ({ procedure, state }) => ({
    defaultLogIns: logInsOf(procedure, state).map((logIn) => ({
      name: logIn.name,
      opens: logIn.opens,
      how: logInWords(logIn) || "not changed yet",
    })),
  }),
);

/** What was saved before the work, and where it was put. */
export const saved = section(
  always,
  {
    saved: z
      .array(z.object({ what: z.string(), where: z.string(), by: z.string(), at: z.string() }))
      .default([]),
  },
  (ground) => ({
    saved: ground.state.written.map(({ step, words, by, at }) => ({
      what: titleOf(ground, step),
      where: words,
      by,
      at,
    })),
  }),
);

/** What was read from the machine against the plan, with what persons decided. */
export const acceptance = section(
  always,
  {
    acceptance: z
      .object({
        at: z.string(),
        from: z.string(),
        lines: z.array(acceptanceLineSchema.extend({ settled: settledSchema.nullable().default(null) })),
      })
      .nullable(),
  },
  ({ procedure, state }) => ({
    acceptance: state.acceptance && { ...state.acceptance, lines: acceptanceOf(procedure, state) },
  }),
);

/** What was not as the steps said. */
export const deviations = section(
  always,
  {
    deviations: z.array(
      z.object({ at: z.string(), step: z.string(), seen: z.string(), decision: z.string() }),
    ),
  },
  (ground) => ({
    deviations: ground.state.deviations.map(({ at, step, seen, decision }) => ({
      at,
      step: titleOf(ground, step),
      seen,
      decision,
    })),
  }),
);

/** What was known and set aside, or stood open, when the run began. */
export const findings = section(
  always,
  {
    waivers: z.array(
      z.object({
        label: z.string(),
        finding: z.string(),
        reason: z.string(),
        by: z.string(),
        at: z.string(),
      }),
    ),
    openFindings: z.array(z.object({ label: z.string(), severity: z.string(), finding: z.string() })),
  },
  ({ procedure: { findings: known } }) => ({
    waivers: known.flatMap((f) => (f.waiver ? [{ label: f.label, finding: f.says, ...f.waiver }] : [])),
    openFindings: known
      .filter((f) => !f.waiver)
      .map((f) => ({ label: f.label, severity: f.severity, finding: f.says })),
  }),
);
