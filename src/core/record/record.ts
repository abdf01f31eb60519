import { term } from "../text";
import { z } from "zod";
import {
  acceptanceOf,
  clockJumps,
  foldRun,
  happened,
  logInsOf,
  logInWords,
  logLine,
  plannedDrives,
  type LoggedEvent,
  type RunPlan,
} from "../run";
import { isOpenOutside, serviceWords } from "../network";
import { formatDateTime, secondsBetween } from "../units";
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
  /** Log-ins that existed before anybody chose one, and how long they stood open. */
  defaultLogIns: z.array(z.object({ name: z.string(), opens: z.string(), how: z.string() })).default([]),
  /** What was saved before the work, and where it was put. */
  saved: z
    .array(z.object({ what: z.string(), where: z.string(), by: z.string(), at: z.string() }))
    .default([]),
  drives: z.object({
    target: z.string(),
    layout: z.string().default("single drive"),
    leftAlone: z.array(z.string()),
    free: z.array(z.string()).default([]),
  }),
  acceptance: z
    .object({
      at: z.string(),
      from: z.string(),
      lines: z.array(
        acceptanceLineSchema.extend({
          /** What a person decided about a line that was not as planned. */
          settled: z
            .object({
              how: z.enum(["seen", "taken as it is"]),
              words: z.string(),
              found: z.string(),
              by: z.string(),
              at: z.string(),
            })
            .nullable()
            .default(null),
        }),
      ),
    })
    .nullable(),
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
  /** Where the server's clock went back during the run, and by how much: times around it are not to be trusted. */
  clock: z.array(z.object({ at: z.string(), seconds: z.number() })).default([]),
  log: z.array(
    z.object({
      /** When it happened; `arrived` is when the server heard of it, where that was later. */
      at: z.string(),
      arrived: z.string().nullable().default(null),
      by: z.string(),
      text: z.string(),
    }),
  ),
  handedTo: z.string().nullable(),
  notes: z.string(),
});
export type BuildRecord = z.infer<typeof recordSchema>;

export const recordJsonSchema = (): unknown => z.toJSONSchema(recordSchema);

/** Draws the record from what the run froze at its start and from its log. Same log, same record. */
export function makeRecord(plan: RunPlan, log: readonly LoggedEvent[]): BuildRecord {
  const state = foldRun(plan.steps, log);
  const times = happened(log);
  const { sheet } = plan;
  const drives = plannedDrives(plan);
  const title = (id: string): string => plan.steps.find((s) => s.id === id)?.title ?? id;
  const taken = (from: string | null, to: string | null): number | null =>
    from && to ? secondsBetween(from, to) : null;
  const finished = state.endedAt ?? (state.status === "steps done" ? (times.at(-1) ?? null) : null);
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
    image: { name: plan.imageName, profile: plan.profileName, checksum: checksumWords(plan, log) },
    reach: {
      management: plan.management,
      address: sheet.network.address || sheet.network.school,
      hostName: [sheet.answers.hostName, sheet.answers.domain].filter(Boolean).join("."),
      accounts: sheet.answers.accounts.map((a) => `${a.name} (${term(a.role)}, login: ${a.logIn})`),
      secretsKept: sheet.answers.secretsKept,
    },
    defaultLogIns: logInsOf(plan, state).map((logIn) => ({
      ...{ name: logIn.name, opens: logIn.opens },
      how: logInWords(logIn) || "not changed yet",
    })),
    saved: state.written.map(({ step, words, by, at }) => ({ what: title(step), where: words, by, at })),
    drives: {
      target: drives.target.map((d) => d.name).join("; "),
      layout: sheet.storage.layout,
      leftAlone: drives.leftAlone,
      free: drives.free,
    },
    acceptance: state.acceptance && { ...state.acceptance, lines: acceptanceOf(plan, state) },
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
      ...(sheet.network.fixedBy ? [{ date: sheet.network.fixedBy, what: "address becomes static" }] : []),
      ...sheet.network.services.flatMap((service) =>
        isOpenOutside(service) && service.until
          ? [{ date: service.until, what: `${serviceWords(service)} is closed to the outside` }]
          : [],
      ),
    ],
    clock: clockJumps(log).map(({ seq, seconds }) => ({ at: times[seq - 1]!, seconds })),
    log: log.map((l, i) => ({
      at: times[i]!,
      arrived: l.given ? l.at : null,
      by: l.event.by,
      text: logLine(l.event, plan, true),
    })),
    handedTo: state.handedTo,
    notes: sheet.handOver.notes,
  };
}

/** What the run knows of the checksum: compared in it, by whom and when, or as it stood at the start. */
function checksumWords(plan: RunPlan, log: readonly LoggedEvent[]): string {
  const done = log.flatMap(({ at, event }) => {
    const step = event.kind === "as expected" ? plan.steps.find((s) => s.id === event.step) : undefined;
    const compared = step?.deeds.find((d) => d.kind === "checksum compared");
    return compared ? [{ at, by: event.by, image: compared.image }] : [];
  });
  const last = done.findLast((d) => d.image === plan.imageName);
  return last
    ? `matches, compared in this run by ${last.by}, ${formatDateTime(last.at, plan.timeZone)}`
    : plan.imageCheck;
}
