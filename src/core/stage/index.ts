export { open, said, type Stage, type Summary } from "./stage";
export {
  ISSUED_CHECKS,
  ISSUED_MESSAGES,
  START_GATE,
  type IssuedGround,
  type StartGround,
} from "./start-gate";
export { ISSUE_GATE, type IssueGround } from "./issue-gate";
