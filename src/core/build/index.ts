export { emptySheet, sheetDocument, sheetSchema, type Consent, type Sheet } from "./sheet";
export { applyEdits, diffSheets, editSchema, invertEdits, nextRevision, valueAt, type Edit } from "./edits";
export { adoptMachine, type ChosenMachine } from "./adopt";
export { standOf, wayTo, type Stand } from "./stand";
export { claimsAskedBy, sheetClaims } from "./claims";
export { consentTo, consentViews, signedAnew } from "./signing";
export { fieldWords } from "./field-words";
export {
  consentFor,
  drivesOf,
  factsOf,
  portOf,
  segmentOf,
  stickOf,
  targetOf,
  targetsOf,
  type BuildContext,
  type ShelfImage,
} from "./context";
export { faultsHere, installedOn, keepsSystem, legsOf, roadOf, roadsOf, targetKind } from "./roads";
export { roadLines, waysOf, type RoadLine, type WaysView } from "./roads-view";
export { BUILD_CHECKS } from "./checks";
export { BUILD_MESSAGES } from "./messages.en";
export { effectSchema, guardSchema, stepSchema, type Deed, type Effect, type Guard, type Step } from "./step";
export { deriveSteps } from "./steps";
export { valuesOf } from "./values";
export { evaluateBuild, markOf, type Evaluation, type SheetMark, type StageState } from "./evaluate";
export type { BuildView, MachineChoice, ConsentView, SaveAnswer } from "./view";
