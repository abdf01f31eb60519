export { durationSchema, sumDurations, takes, type Duration } from "./estimate";
export { figureSchema, type Figure, type FigureInput } from "./figure";
export { DEFAULT_LINK, fetchEstimate, readEstimate, transferEstimate, type LinkMeasure } from "./transfer";
export { learnRate, rateSampleSchema, WAYS, type LearnedRate, type RateSample, type Way } from "./learn";
export { learnStep, stepTimeSchema, type StepTime } from "./step-times";
