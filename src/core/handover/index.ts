export { handOverStage } from "./stage";
