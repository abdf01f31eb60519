export {
  latestReadings,
  powerOf,
  readingProblem,
  readingSchema,
  readingsOf,
  READING_KINDS,
  type Reading,
  type ReadingKind,
} from "./reading";
export {
  baselines,
  likenessOf,
  median,
  percentOfRated,
  readingWords,
  type BaselineLine,
  type LikeMachine,
} from "./baseline";
