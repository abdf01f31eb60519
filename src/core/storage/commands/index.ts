export { setScript, setScripts, type SetScript } from "./script";
export { quoted } from "./quote";
