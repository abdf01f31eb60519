export {
  CACHES,
  plannedSetSchema,
  PROVISIONS,
  SET_TYPES,
  type PlannedSet,
  type PlannedVolume,
  type SetType,
} from "./planned";
export { idsOf, roleIn, SEAT_ROLES, type SeatRole } from "./seats";
export { stripeOf, volumesOf, type VolumesView, type VolumeView } from "./volumes";
export { kindOf, layoutOf, nameFault } from "./layout";
export { inLayout, newSet } from "./change";
export { classOfDrives, setFigures, shapesOf, type SetFigures } from "./figures";
export { figuresOf, isOfData, oddOf, seatsOf, setDrivesOf, setsNow, type Seat } from "./ground";
export { oddDrives, type OddDrives } from "./odd";
export { setViews, type SetView } from "./view";
export { kindWords, scriptFile, setName, typeWords } from "./words.en";
export { withMadeDrives } from "./made";
export { isToBeMade, madeId, madeName } from "./made-id";
