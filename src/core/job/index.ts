export { isOn, jobKindSchema, jobSchema, jobStateSchema, progressOf } from "./job";
export type { Job, JobKind, JobProgress, JobState } from "./job";
