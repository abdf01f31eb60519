export { NETWORK_CHECKS } from "./rules";
export { NETWORK_MESSAGES } from "./messages.en";
