export { textOf, type AnswerFile, type AnswerLine } from "./line";
export { writeAutoinstall } from "./autoinstall";
export { word, writeKickstart } from "./kickstart";
export { writePreseed } from "./preseed";
export {
  KICKSTART_RULES,
  kickstartWords,
  lintKickstart,
  type KickstartFault,
  type KickstartRule,
} from "./lint-kickstart";
export { lintPreseed, PRESEED_RULES, type PreseedFault, type PreseedRule } from "./lint-preseed";
