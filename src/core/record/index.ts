export { makeRecord, recordJsonSchema, recordSchema, type RunRecord } from "./record";
export { renderRecordMarkdown } from "./markdown";
export { exportSchema, moveTimes, parseExport, rebaseExport, type Export } from "./export-file";
export { itemSchema, itemsOf, type Item, type ItemKind, type PlacedItem } from "./items";
export { Integrity } from "./integrity";
export { calledFor, dueDates, MOST_COMING, type DueDate } from "./dates";
export { RESTORE_GATE, type RestoreGround } from "./restore-gate";
