export { setScript } from "./script";
export { quoted } from "./quote";
