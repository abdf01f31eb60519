export { open, said, type Stage, type Summary } from "./stage";
export {
  guardSchema,
  stepSchema,
  TOLD,
  VERBS,
  type Deed,
  type Guard,
  type ReadBack,
  type Step,
} from "./step";
export { NOTHING_TO_PUT_BACK, stripAfter, type Effect, type EffectOf, type Strip } from "./effects";
export { HAZARD, step, type Moves } from "./make";
export {
  ISSUED_CHECKS,
  ISSUED_MESSAGES,
  START_GATE,
  type IssuedGround,
  type StartGround,
} from "./start-gate";
export { ISSUE_GATE, type IssueGround } from "./issue-gate";
