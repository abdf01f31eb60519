import { localDay } from "../../units";
import { visibleDrives } from "../facts/describe";
import type { MachineDocument } from "../facts/document";
import type { Drive } from "../facts/drive";
import type { Facts } from "../facts/facts";

/** A ground of rules that look at a machine, which may not have been chosen yet. */
export interface OnMachine {
  machine: { name: string; document: MachineDocument } | null;
  /** The time zone of where it stands. */
  timeZone?: string;
}

export const factsOf = ({ machine }: OnMachine): Facts | null => machine?.document.facts ?? null;

/** The drives that people see in the machine; none without one. */
export const drivesOf = (ground: OnMachine): Drive[] => {
  const facts = factsOf(ground);
  return facts ? visibleDrives(facts) : [];
};

/** Maker and model in one text; empty where neither was read. */
export const modelOf = (ground: OnMachine): string => {
  const { chassis } = factsOf(ground) ?? {};
  return [chassis?.maker, chassis?.model].filter(Boolean).join(" ");
};

/** Where a fact was read: "dmidecode, 2026-11-20", for evidence. */
export function sourceWords({ machine, timeZone }: OnMachine, path: string): string {
  const source = machine?.document.sources[path];
  return source ? `${source.tool}, ${localDay(source.at, { timeZone })}` : "imported";
}
