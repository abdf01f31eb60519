export {
  dispositionOf,
  drivesAlike,
  identityOf,
  installerSize,
  memberPartners,
  setOf,
  type Disposition,
  type DrivePlan,
} from "./guard";
export {
  FATES,
  type PlanOfDrives,
  withFate,
  withLayout,
  withNewSet,
  withoutSet,
  withSeat,
  withSetLayout,
  type Fate,
} from "./fates";
export { proofOf, proofWords, proves, type Proof } from "./proof";
export { grossBytes, leastMembers, survives, targetSeats, type TargetPlan, type TargetSeat } from "./target";
export { consentFor, erasedDrives, targetOf, targetsOf, wantsConsent, type StorageGround } from "./ground";
export { consentTo, consentViews, type ConsentView } from "./signing";
export { drivesOfWork, guardsBefore, lacksDrives } from "./steps/guards";
export { controllerSetSteps, setLines, setSteps } from "./steps/sets";
export { storageStage } from "./stage";
export type { Consent, StorageSlice } from "./slice";
export {
  benchQuery,
  chance,
  CLASS_NAMES,
  CLASSES,
  COERCIONS,
  consequence,
  fromQuery,
  layoutName,
  percent,
  PURPOSES,
  REBUILD_SHARE,
  remarksOn,
  RUNG_WORDS,
  searchLayouts,
  searchOver,
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
export {
  CACHES,
  classOfDrives,
  figuresOf,
  idsOf,
  isToBeMade,
  kindWords,
  layoutOf,
  PROVISIONS,
  roleIn,
  SEAT_ROLES,
  SET_TYPES,
  setDrivesOf,
  setName,
  setsNow,
  setViews,
  typeWords,
  withMadeDrives,
  type PlannedSet,
  type PlannedVolume,
  type SeatRole,
  type SetView,
} from "./sets";
export { scriptHead, setScript, setScripts, type NamedDrive, type SetScript } from "./commands";
export { toldLayout, type ToldLayout } from "./told-layout";
export { growthOf, GROWTH_WORDS, type Growth } from "./growth";
export {
  cacheView,
  partitionView,
  SWAP_SCHOOLS,
  type CacheView,
  type PartitionView,
  type PlannedPart,
} from "./plan";
