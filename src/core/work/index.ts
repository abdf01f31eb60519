export { modeWords, MODES, type Mode } from "./mode";
export { output, sightSchema, statement, type Sight, type SightOf } from "./sight";
export { sightWords } from "./words.en";
export { NOTHING_TO_PUT_BACK, stripAfter, type Effect, type EffectOf, type Strip } from "./effects";
export {
  operationSchema,
  REPORTS,
  VERBS,
  type CommonParts,
  type Deed,
  type DriveNaming,
  type Guard,
  type Measure,
  type MeasureOf,
  type Operation,
  type OperationOf,
  type Report,
} from "./operation";
export { isGuard, measureOf, reportThatEnds, restarts, startsFromOff } from "./ask";
export { HAZARD, operation } from "./make";
export { upgradedStep } from "./older";
