export { modeWords, stickBoots, type Mode, type StickWritten } from "./mode";
export * from "./ways";
