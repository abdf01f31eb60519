export {
  message,
  severitySchema,
  waiverSchema,
  zoneSchema,
  type Check,
  type Evidence,
  type Finding,
  type Hit,
  type Message,
  type Messages,
  type Severity,
  type Waiver,
  type Zone,
} from "./finding";
export { numberFindings, openStops, runChecks, type PlacedFinding } from "./place-findings";
export { heldBy, holdWords, type Gate } from "./gate";
export { evidence, hit, rulesOver, type FactsOf } from "./check";
export { foldFindings, quietWords, type FindingGroup } from "./fold";
