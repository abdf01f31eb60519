export { open, said, type Stage, type Summary } from "./stage";
export { guardSchema, stepSchema, type Deed, type Guard, type Step } from "./step";
export { stripAfter, type Effect, type EffectOf, type Strip } from "./effects";
export { HAZARD, step, type Moves } from "./make";
