import type { Check, Finding, Messages } from "./finding";
import { runChecks } from "./place-findings";

/**
 * A gate: everything that must be so before something is done, as rules over a ground like those of a sheet. What stands
 * at a gate is not waived; it is put right.
 */
export interface Gate<Ground> {
  /** What is done once the gate is open, as the head of its rules. */
  title: string;
  checks: readonly Check<Ground>[];
  messages: Messages;
}

/** All that keeps a gate shut, in words; it is open when there is nothing. */
export const heldBy = <Ground>(gate: Gate<Ground>, ground: Ground): Finding[] =>
  runChecks(gate.checks, gate.messages, ground);

/** What a person reads of one thing that keeps a gate shut: what is so, and what to do. */
export const holdWords = ({ says, remedy }: Pick<Finding, "says" | "remedy">): string => `${says} ${remedy}`;
