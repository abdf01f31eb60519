export { answersStage } from "./stage";
export { screenSteps, type ScreenGround } from "./steps/screens";
