export { bootStage } from "./stage";
export { mediaIn, restart, settings } from "./steps/firmware";
export type { BootGround } from "./ground";
export * from "./picture";
export * from "./resolve";
export { parseDevicePath, type DevicePath } from "./path";
export * from "./entries";
export * from "./settings";
export { isListRead, seenMachine } from "./seen";
