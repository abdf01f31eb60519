export { choose, drivesIn, survival, type Redundancy, type Survival, type SurvivalRow } from "./survival";
export { hoursToLoss, lossWithin, meanHours, naiveHours, unreadable, type Reliability } from "./markov";
export { shareBounds, Trials, type Trial, type TrialResult, type TrialThread } from "./trial";
