export { setScript, setScripts, type SetScript } from "./script";
export { quoted } from "./quote";
export { preamble as scriptHead, type NamedDrive } from "./preamble";
