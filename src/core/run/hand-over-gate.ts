import { evidence, hit, message, rulesOver, type Gate } from "../finding";
import { term } from "../text";
import { isOpen, type SettledLine } from "./acceptance";

/** What is looked at before a build is handed over. */
export interface HandOverGround {
  /** Why the run is stopped; null while it is not. */
  stoppedBy: string | null;
  /** Title of the step that the run stands at; null when all are done. */
  step: string | null;
  /** Something was read from the installed system. */
  isVerified: boolean;
  lines: readonly SettledLine[];
}

const HAND_OVER_MESSAGES = {
  "handover.stopped": message(
    "Run stopped",
    "The run is stopped: {why}",
    "Record what was done about it, then resume.",
    "What stopped a run may not be put right yet.",
  ),
  "handover.steps": message(
    "Steps remain",
    "Steps remain: {step}.",
    "Finish them, or skip them with a reason.",
    "What was mapped or set for the installation is put back by the last steps.",
  ),
  "handover.unverified": message(
    "Installed system not verified",
    "The installed system is not verified yet.",
    "Import its bundle first.",
    "Without a reading the record would say what was planned, as if it had been found.",
  ),
  "handover.deviations": message(
    "Unresolved deviations",
    "Unresolved deviations: {lines}.",
    "Accept or correct each one first.",
    "The new owner of the machine relies on the plan.",
  ),
} as const;

const rule = rulesOver<HandOverGround, "run" | "acceptance">()("J", HAND_OVER_MESSAGES);

const lineWords = ({ what, verdict, found }: SettledLine): string =>
  `${what} (${term(verdict)}${found ? `: ${found}` : ""})`;

/** Before a build is handed over. */
export const HAND_OVER_GATE: Gate<HandOverGround> = {
  title: "Hand over",
  checks: [
    rule("handover.stopped", ({ stoppedBy }) =>
      stoppedBy === null ? null : hit("stop", "run", { why: stoppedBy }),
    ),
    rule("handover.steps", ({ step }) => (step === null ? null : hit("stop", "run", { step }))),
    rule("handover.unverified", ({ isVerified }) =>
      isVerified ? null : hit("stop", "acceptance", {}, evidence("reading", "none", "run")),
    ),
    // What was never read is one thing to do, not one for each line.
    rule("handover.deviations", ({ isVerified, lines }) => {
      const open = lines.filter(isOpen);
      return !isVerified || open.length === 0
        ? null
        : hit(
            "stop",
            "acceptance",
            { lines: open.map(lineWords).join("; ") },
            evidence("open lines", String(open.length), "acceptance"),
          );
    }),
  ],
  messages: HAND_OVER_MESSAGES,
};
