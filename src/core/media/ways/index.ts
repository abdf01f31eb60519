export { WAYS, type Way } from "../../estimate";
export { mediumWords, wayWords, type WayPlan } from "./way";
export {
  discEstimate,
  learnedMedia,
  mediaEstimate,
  mediaThrough,
  networkEstimate,
  networkThrough,
  planWays,
  portRate,
  WRITE_HANDS,
  writingEstimate,
  type StickOnHand,
  type WaysGround,
} from "./plan-ways";
export { answerFileBreakEven, atOnce, breakEven, elapsedSeconds, handsSeconds, sharedSeconds } from "./fleet";
