export { bootRules as BOOT_CHECKS } from "./rules";
export { BOOT_MESSAGES } from "./messages.en";
