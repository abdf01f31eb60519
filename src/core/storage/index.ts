export {
  dispositionOf,
  drivesAlike,
  identityOf,
  installerSize,
  memberPartners,
  type Disposition,
  type DrivePlan,
} from "./guard";
export { FATES, withFate, withLayout, type Fate } from "./fates";
export { proofOf, proofWords, proves, type Proof } from "./proof";
export { grossBytes, leastMembers, survives, targetSeats, type TargetPlan, type TargetSeat } from "./target";
export { consentFor, targetOf, targetsOf, wantsConsent, type StorageGround } from "./ground";
export { consentTo, consentViews, type ConsentView } from "./signing";
export { guardsBefore, lacksDrives } from "./steps/guards";
export { storageStage } from "./stage";
export type { Consent } from "./slice";
export {
  benchQuery,
  chance,
  CLASS_NAMES,
  CLASSES,
  COERCIONS,
  consequence,
  fromQuery,
  percent,
  PURPOSES,
  REBUILD_SHARE,
  remarksOn,
  RUNG_WORDS,
  searchLayouts,
  SCHOOLS as BENCH_SCHOOLS,
  SMALL_SHARE,
  standing,
  toQuery,
  trialOf,
  type BenchAnswer,
  type Judged as BenchCandidate,
  type Question as BenchQuestion,
  type Standing,
} from "./bench";
export { Trials, type Trial, type TrialResult, type TrialThread } from "./reliability";
export { setStanding, type SetStanding } from "./set-standing";
