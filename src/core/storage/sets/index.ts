export { CACHES, plannedSetSchema, SET_TYPES, type PlannedSet, type SetType } from "./planned";
export { kindOf, layoutOf, nameFault } from "./layout";
export { inLayout, newSet } from "./change";
export { classOfDrives, setFigures, type SetFigures } from "./figures";
export { figuresOf, oddOf, seatsOf, setDrivesOf } from "./ground";
export { oddDrives, type OddDrives } from "./odd";
export { setViews, type SetView } from "./view";
export { kindWords, setName, typeWords } from "./words.en";
