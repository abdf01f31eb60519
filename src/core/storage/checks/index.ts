import { TARGET_CHECKS } from "./rules";
import { PLAN_CHECKS } from "./plan-rules";
import { SET_CHECKS } from "./set-rules";

export const STORAGE_CHECKS = [...TARGET_CHECKS, ...PLAN_CHECKS, ...SET_CHECKS];
export { STORAGE_MESSAGES } from "./messages.en";
