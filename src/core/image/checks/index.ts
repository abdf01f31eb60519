import { imageRules } from "./image-rules";
import { roadRules } from "./road-rules";

/** Rules about an image, its profile, and the road to it. */
export const IMAGE_CHECKS = [...imageRules, ...roadRules];
export { IMAGE_MESSAGES } from "./messages.en";
