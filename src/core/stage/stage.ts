import type { z } from "zod";
import type { Check, Messages, Zone } from "../finding";
import type { Values } from "../image";

/** The decision of a stage in one line of plain words, and whether it has been made. */
export interface Summary {
  summary: string;
  decided: boolean | "not here";
}

export const said = (summary: string): Summary => ({ summary, decided: true });
export const open = (summary: string): Summary => ({ summary, decided: false });

/**
 * A stage of the sheet as its domain owns it. `Ground` is the part of a plan that its rules, its summary and its values
 * may look at: nothing else is in their reach. The sheet composes the stages of `core/sheet/stages.ts`.
 */
export interface Stage<Ground, At extends string = string> {
  zone: Zone;
  title: string;
  /** Its choices, under their key of the sheet; empty for a stage where nothing is chosen. */
  slice: z.ZodRawShape;
  /** What people call its fields, by their paths. */
  names: Readonly<Record<At, string>>;
  checks: readonly Check<Ground>[];
  messages: Messages;
  summary: (ground: Ground) => Summary;
  /** What the texts of a profile may name of this stage. */
  values: (ground: Ground) => Partial<Values>;
}
