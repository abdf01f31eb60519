export { textOf, type AnswerFile, type AnswerLine } from "./line";
export { writeAutoinstall } from "./autoinstall";
export { writeKickstart } from "./kickstart";
export { word } from "./word";
export { writeBsd } from "./bsd";
export { metaData, vendorData, writeCloudSeed } from "./cloud-seed";
export { writeOwnWords } from "./own-words";
export { writePreseed } from "./preseed";
export {
  KICKSTART_RULES,
  kickstartWords,
  lintKickstart,
  type KickstartFault,
  type KickstartRule,
} from "./lint-kickstart";
export { lintPreseed, PRESEED_RULES, type PreseedFault, type PreseedRule } from "./lint-preseed";
