export {
  runEventSchema,
  runCommandSchema,
  runPlanSchema,
  loggedEventSchema,
  type LoggedEvent,
  type RunCommand,
  type RunEvent,
  type RunPlan,
} from "./events";
export { foldRun, nextHands, type RunState, type StepState } from "./state";
export { decide } from "./decide";
export { logLine } from "./log-line";
export { freezePlan } from "./freeze";
export { measuredTransfer } from "./measured";
