export { durationSchema, sumDurations, takes, type Duration } from "./estimate";
export { figureSchema, type Figure, type FigureInput } from "./figure";
export { transferEstimate, type LinkMeasure } from "./transfer";
