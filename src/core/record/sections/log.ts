import { z } from "zod";
import { clockJumps, logLine } from "../../run";
import { secondsBetween } from "../../units";
import { always, section } from "./section";

const taken = (from: string | null, to: string | null): number | null =>
  from && to ? secondsBetween(from, to) : null;

/** How long each step and the whole took, in seconds, beside what was expected. */
export const times = section(
  always,
  {
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
  },
  ({ procedure: { steps }, state, times: happened }) => {
    const finished = state.endedAt ?? (state.status === "steps done" ? (happened.at(-1) ?? null) : null);
    return {
      times: {
        startedAt: state.startedAt,
        endedAt: state.endedAt,
        likelySeconds: steps.reduce((sum, s) => sum + s.duration.likelySeconds, 0),
        takenSeconds: taken(state.startedAt, finished),
        steps: steps.map((s, i) => {
          const own = state.steps[i];
          return {
            title: s.title,
            state: own?.state ?? "waiting",
            likelySeconds: s.duration.likelySeconds,
            takenSeconds: taken(own?.startedAt ?? null, own?.endedAt ?? null),
          };
        }),
      },
    };
  },
);

/** Where the server's clock went back during the run, and by how much: times around it are not to be trusted. */
export const clock = section(
  always,
  { clock: z.array(z.object({ at: z.string(), seconds: z.number() })).default([]) },
  ({ log: entries, times: happened }) => ({
    clock: clockJumps(entries).map(({ seq, seconds }) => ({ at: happened[seq - 1] ?? "", seconds })),
  }),
);

/** Everything that happened, and to whom the result was handed over. */
export const log = section(
  always,
  {
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
  },
  ({ procedure, log: entries, times: happened, state }) => ({
    log: entries.map((l, i) => ({
      at: happened[i] ?? l.at,
      arrived: l.given ? l.at : null,
      by: l.event.by,
      text: logLine(l.event, procedure, true),
    })),
    handedTo: state.handedTo,
  }),
);
