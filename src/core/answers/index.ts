export { usualAccounts } from "./accounts";
export { answerCard, type CardScreen } from "./card";
export { answersStage } from "./stage";
export { screenSteps, type ScreenGround } from "./steps/screens";
