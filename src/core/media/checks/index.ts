export { stickRules as MEDIA_CHECKS } from "./rules";
export { MEDIA_MESSAGES } from "./messages.en";
