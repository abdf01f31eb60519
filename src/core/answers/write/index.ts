export { textOf, type AnswerFile, type AnswerLine } from "./line";
export { word, writeKickstart } from "./kickstart";
export {
  KICKSTART_RULES,
  kickstartWords,
  lintKickstart,
  type KickstartFault,
  type KickstartRule,
} from "./lint-kickstart";
