export { ANSWERS_CHECKS } from "./rules";
export { ANSWERS_MESSAGES } from "./messages.en";
