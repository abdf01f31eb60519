export { stickBoots, type StickWritten } from "./mode";
export * from "./ways";
export { isAtMachine, isServed, mediaWords, onStick, stickOf, wayOf, type MediaGround } from "./ground";
export { mediaStage } from "./stage";
export { imageCompared, mediumReady, movesOf } from "./steps";
