export { defineDocument, type DocumentKind, type Upgrade } from "./definition";
export {
  edited,
  editedBack,
  type Editable,
  type Hand,
  type WrittenAnswer,
  type WrittenView,
} from "./editable";
export { applyEditsTo, diffDocuments, editSchema, invertEdits, takenBack, type Edit } from "./edits";
export { unseenIn, unseenTexts, type Lines } from "./plain";
export { fieldChange, isBag, valueAt, withValueAt, type DeepPath, type Path, type ValueAt } from "./path";
export { readDocument, upgraded, type ReadDocument } from "./upgrade";
