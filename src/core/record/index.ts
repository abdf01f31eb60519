export { makeRecord, recordJsonSchema, recordSchema, type BuildRecord } from "./record";
export { renderRecordMarkdown } from "./markdown";
export { exportSchema, parseExport, rebaseExport, type Export } from "./export-file";
export { dueDates, type DueDate } from "./dates";
