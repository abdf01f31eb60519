export { imageCompared, mediumReady } from "./preparation";
export { movesOf } from "./moves";
