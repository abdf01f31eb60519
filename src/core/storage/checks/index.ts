export { STORAGE_CHECKS } from "./rules";
export { STORAGE_MESSAGES } from "./messages.en";
