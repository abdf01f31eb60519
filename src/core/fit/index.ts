export { fitStage } from "./stage";
export { beginning, type BeginningGround } from "./steps";
