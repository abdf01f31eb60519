import { evidence, hit, message, rulesOver, type Gate } from "../finding";

/** What the start of a run and every arming look at of a sheet. */
export interface IssuedGround {
  /** The letter of the last revision; null before the first. */
  revision: string | null;
  /** Nothing has changed since that revision was issued. */
  isIssued: boolean;
  /** Open blockers of the sheet. */
  stops: readonly { label: string; title: string }[];
}

/** The same, and whether a run of the sheet is open. */
export interface StartGround extends IssuedGround {
  isRunning: boolean;
}

export const ISSUED_MESSAGES = {
  "gate.revision": message(
    "No revision of the present sheet",
    "{state}.",
    "Issue a revision first.",
    "A run carries out a fixed revision, so that its record says what was planned.",
    {
      state: {
        never: "No revision of the sheet was issued",
        changed: "The sheet has changed since its last revision",
      },
    },
  ),
  "gate.blockers": message(
    "Open blockers",
    "The sheet has blockers: {which}.",
    "Resolve each on the build sheet.",
    "What contradicts itself on the sheet fails at the machine.",
  ),
} as const;

const issued = rulesOver<IssuedGround, "revision" | "stops">()("H", ISSUED_MESSAGES);

export const ISSUED_CHECKS = [
  issued("gate.revision", ({ revision, isIssued }) =>
    isIssued
      ? null
      : hit(
          "stop",
          "revision",
          { state: revision === null ? "never" : "changed" },
          evidence("last revision", revision ?? "none", "build sheet"),
        ),
  ),
  issued("gate.blockers", ({ stops }) =>
    stops.length === 0
      ? null
      : hit(
          "stop",
          "stops",
          { which: stops.map((s) => `${s.label} ${s.title}`).join(", ") },
          evidence("open blockers", String(stops.length), "build sheet"),
        ),
  ),
] as const;

export const START_MESSAGES = {
  ...ISSUED_MESSAGES,
  "start.running": message(
    "Already running",
    "This build is already running.",
    "Continue the open run, or end it.",
    "Two runs of one build would write the same drives.",
  ),
} as const;

const start = rulesOver<StartGround, "run">()("H", START_MESSAGES);

/** Before a run is started. */
export const START_GATE: Gate<StartGround> = {
  title: "Start a run",
  checks: [
    ...ISSUED_CHECKS,
    start("start.running", ({ isRunning }) => (isRunning ? hit("stop", "run", {}) : null)),
  ],
  messages: START_MESSAGES,
};
