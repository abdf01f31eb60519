import { z } from "zod";
import { foldRun, logLine, type LoggedEvent, type RunPlan } from "../run";
import { secondsBetween } from "../units";
import { acceptanceLineSchema } from "../verify";

/** What was built, as planned and as found. It names places where secrets are kept, and holds none. */
export const recordSchema = z.object({
  format: z.literal("derrick-record"),
  version: z.literal(1),
  sheet: z.string(),
  revision: z.string(),
  subject: z.string(),
  state: z.enum(["running", "stopped", "steps done", "handed over"]),
  site: z.string(),
  timeZone: z.string(),
  machine: z.object({ name: z.string(), summary: z.string() }),
  /** Known defects of the machine when the run began. */
  defects: z.array(z.string()).default([]),
  image: z.object({ name: z.string(), profile: z.string(), checksum: z.string() }),
  reach: z.object({
    management: z.string(),
    address: z.string(),
    hostName: z.string(),
    accounts: z.array(z.string()),
    secretsKept: z.string(),
  }),
  drives: z.object({ target: z.string(), leftAlone: z.array(z.string()) }),
  acceptance: z.object({ at: z.string(), from: z.string(), lines: z.array(acceptanceLineSchema) }).nullable(),
  deviations: z.array(z.object({ at: z.string(), step: z.string(), seen: z.string(), decision: z.string() })),
  waivers: z.array(
    z.object({ label: z.string(), finding: z.string(), reason: z.string(), by: z.string(), at: z.string() }),
  ),
  openFindings: z.array(z.object({ label: z.string(), severity: z.string(), finding: z.string() })),
  times: z.object({
    startedAt: z.string().nullable(),
    endedAt: z.string().nullable(),
    likelySeconds: z.number(),
    takenSeconds: z.number().nullable(),
    steps: z.array(
      z.object({
        title: z.string(),
        state: z.string(),
        likelySeconds: z.number(),
        takenSeconds: z.number().nullable(),
      }),
    ),
  }),
  dates: z.array(z.object({ date: z.string(), what: z.string() })),
  log: z.array(z.object({ at: z.string(), by: z.string(), text: z.string() })),
  handedTo: z.string().nullable(),
  notes: z.string(),
});
export type BuildRecord = z.infer<typeof recordSchema>;

export const recordJsonSchema = (): unknown => z.toJSONSchema(recordSchema);

/** Draws the record from what the run froze at its start and from its log. Same log, same record. */
export function makeRecord(plan: RunPlan, log: readonly LoggedEvent[]): BuildRecord {
  const state = foldRun(plan.steps, log);
  const { sheet } = plan;
  const guard = plan.steps.find((s) => s.guard)?.guard;
  const title = (id: string): string => plan.steps.find((s) => s.id === id)?.title ?? id;
  const taken = (from: string | null, to: string | null): number | null =>
    from && to ? secondsBetween(from, to) : null;
  const finished = state.endedAt ?? (state.status === "steps done" ? (log.at(-1)?.at ?? null) : null);
  return {
    format: "derrick-record",
    version: 1,
    sheet: plan.number,
    revision: plan.revision,
    subject: plan.subject,
    state: state.status,
    site: plan.siteName,
    timeZone: plan.timeZone,
    machine: { name: plan.machineName, summary: plan.machineLine },
    defects: plan.defects,
    image: { name: plan.imageName, profile: plan.profileName, checksum: plan.imageCheck },
    reach: {
      management: plan.management,
      address: sheet.network.address || sheet.network.school,
      hostName: [sheet.answers.hostName, sheet.answers.domain].filter(Boolean).join("."),
      accounts: sheet.answers.accounts.map((a) => `${a.name} (${a.role}, log-in: ${a.logIn})`),
      secretsKept: sheet.answers.secretsKept,
    },
    drives: {
      target: guard?.target ?? sheet.storage.target ?? "",
      leftAlone: guard?.leaveAlone.map((d) => d.name) ?? [],
    },
    acceptance: state.acceptance,
    deviations: state.deviations.map(({ at, step, seen, decision }) => ({
      at,
      step: title(step),
      seen,
      decision,
    })),
    waivers: plan.findings.flatMap((f) =>
      f.waiver ? [{ label: f.label, finding: f.says, ...f.waiver }] : [],
    ),
    openFindings: plan.findings
      .filter((f) => !f.waiver)
      .map((f) => ({ label: f.label, severity: f.severity, finding: f.says })),
    times: {
      startedAt: state.startedAt,
      endedAt: state.endedAt,
      likelySeconds: plan.steps.reduce((sum, s) => sum + s.duration.likelySeconds, 0),
      takenSeconds: taken(state.startedAt, finished),
      steps: plan.steps.map((s, i) => {
        const own = state.steps[i];
        return {
          title: s.title,
          state: own?.state ?? "waiting",
          likelySeconds: s.duration.likelySeconds,
          takenSeconds: taken(own?.startedAt ?? null, own?.endedAt ?? null),
        };
      }),
    },
    dates: [
      ...(sheet.handOver.evaluationEnds
        ? [{ date: sheet.handOver.evaluationEnds, what: "evaluation ends" }]
        : []),
      ...(sheet.network.fixedBy ? [{ date: sheet.network.fixedBy, what: "address is to be fixed" }] : []),
    ],
    log: log.map((l) => ({ at: l.at, by: l.event.by, text: logLine(l.event, plan) })),
    handedTo: state.handedTo,
    notes: sheet.handOver.notes,
  };
}
