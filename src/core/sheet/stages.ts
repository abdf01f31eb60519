import { answersStage } from "../answers";
import { bootStage } from "../boot";
import { fitStage } from "../fit";
import { handOverStage } from "../handover";
import { mediaStage } from "../media";
import { networkStage } from "../network";
import { storageStage } from "../storage";
import { acceptStage, rehearseStage, runStage, settleStage } from "./run-stages";

/** The stages of a build in working order. A new one is its folder and a line here, and a line in the interface. */
export const STAGES = [
  fitStage,
  mediaStage,
  bootStage,
  storageStage,
  networkStage,
  answersStage,
  rehearseStage,
  runStage,
  settleStage,
  acceptStage,
  handOverStage,
] as const;
