import { TARGET_CHECKS } from "./rules";
import { PLAN_CHECKS } from "./plan-rules";
import { SET_DRIVE_CHECKS } from "./set-drive-rules";
import { SET_CHECKS } from "./set-rules";
import { SET_VOLUME_CHECKS } from "./set-volume-rules";

export const STORAGE_CHECKS = [
  ...TARGET_CHECKS,
  ...PLAN_CHECKS,
  ...SET_CHECKS,
  ...SET_DRIVE_CHECKS,
  ...SET_VOLUME_CHECKS,
];
export { STORAGE_MESSAGES } from "./messages.en";
