export {
  emptySheet,
  sheetDocument,
  sheetSchema,
  type Sheet,
  type SheetChanges,
  type SheetPath,
} from "./sheet";
export { STAGES } from "./stages";
export { applyEdits, diffSheets, nextRevision, signedAnew } from "./edits";
export { editSchema, invertEdits, type Edit } from "../document";
export { exampleSteps } from "./example";
export { adoptMachine, type ChosenMachine } from "./adopt";
export { standOf, wayTo, type Stand } from "./stand";
export { chosenIn, decideSheet, type ActGround, type SheetAct } from "./decide";
export { claimsAskedBy, sheetClaims } from "./claims";
export { fieldNames, fieldWords } from "./field-words";
export { partWords } from "./part-words";
export { derive, type Plan, type Sources } from "./plan";
export { roadLines, waysOf, type RoadLine, type WaysView } from "./roads-view";
export { SHEET_CHECKS, SHEET_MESSAGES } from "./checks";
export { deriveSteps } from "./steps";
export { valuesOf } from "./values";
export { evaluateSheet, markOf, type Evaluation, type SheetMark, type StageState } from "./evaluate";
export { judgedIn, judgedOf, judgeOn, verdictText, type Ground, type Judged } from "./judged";
export type { BuildView, Confirmed, MachineChoice, SaveAnswer, SheetJudge } from "./view";
export { intakeOf, type Asked, type Intake } from "./intake";
export { cureOf, type Cure, type CureGround } from "./cures";
