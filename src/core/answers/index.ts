export type { SecretMark } from "./ground";
export { usualAccounts } from "./accounts";
export { answerCard, type CardScreen } from "./card";
export { answersStage } from "./stage";
export { screenSteps, type ScreenGround } from "./steps/screens";
export { unattendedSteps } from "./steps/unattended";
export { answerFileOf, imageSeedOf, type AnswerFileOfSheet } from "./files";
export { installIntent, type Gap, type Hashes, type InstallIntent, type IntentGround } from "./intent";
export { KICKSTART_RULES, lintKickstart, lintPreseed, PRESEED_RULES, textOf } from "./write";
export type { AnswerFile, AnswerLine, KickstartRule, PreseedRule } from "./write";
export {
  offerOf,
  readAnswers,
  type AnswersOffer,
  type AnswersRead,
  type Offered,
  type TakeGround,
  type Untaken,
} from "./read";
export { asksEdition } from "./edition";
export { commandProblem, componentProblem, serviceProblem } from "./software";
export { linePairs, shortened, type LinePair } from "./differ";
export { leftBehind, type LeftBehind } from "./left-behind";
export { commandsOf, ownWordsOf, parametersOf, secretsNamed } from "./parameters";
