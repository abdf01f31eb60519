export type { Answer, Done, Refusal } from "./answer";
export type { FindAnswer, Found } from "./find";
export type { DriveFile, ImportPreview, RegisterLine } from "./machine";
export type { BatchResult, Turns } from "./netboot";
export type { ProfilePreview } from "./profile";
export type { RunView } from "./run";
