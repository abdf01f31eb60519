export {
  runEventSchema,
  runCommandSchema,
  loggedEventSchema,
  type LoggedEvent,
  type RunCommand,
  type RunEvent,
} from "./events";
export { foldRun, nextHands, type RunState, type Settled, type StepState } from "./state";
export { runningRow, stretchesOf, type RunningRow, type Stretch } from "./running";
export { decide } from "./decide";
export { acceptanceOf, installedAt, isOpen, type SettledLine } from "./acceptance";
export { logInsOf, logInWords, type DefaultLogIn } from "./log-ins";
export { logLine } from "./log-line";
export { freezeBuild } from "./freeze";
export { deedsOf } from "./deeds";
export { measuredStep, measuredTransfer } from "./measured";
export { clockJumps, givenBefore, happened, type ClockJump } from "./times";
export { readLogged } from "./damaged";
export { HAND_OVER_GATE, type HandOverGround } from "./hand-over-gate";
