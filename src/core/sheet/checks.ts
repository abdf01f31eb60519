import type { Check, Messages } from "../finding";
import type { Plan } from "./plan";
import type { SheetPath } from "./sheet";
import { STAGES } from "./stages";

/** Every rule of a build sheet, in working order. */
export const SHEET_CHECKS: readonly Check<Plan, SheetPath>[] = STAGES.flatMap(
  (s): readonly Check<Plan, SheetPath>[] => s.checks,
);
/** The words of every rule. */
export const SHEET_MESSAGES: Messages = Object.assign({}, ...STAGES.map((s) => s.messages));
