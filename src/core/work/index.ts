export { modeWords, MODES, type Mode } from "./mode";
export { output, sightSchema, statement, type Sight, type SightOf } from "./sight";
export { sightWords } from "./words.en";
export { NOTHING_TO_PUT_BACK, stripAfter, type Effect, type EffectOf, type Strip } from "./effects";
export {
  isGuard,
  measureOf,
  operationSchema,
  REPORTS,
  reportThatEnds,
  restarts,
  startsFromOff,
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
export { HAZARD, operation } from "./make";
export { upgradedStep } from "./older";
