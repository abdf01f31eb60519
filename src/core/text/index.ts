export { excerptAt, placeOf } from "./place";
export { nestingOf, parseJson, type Nesting } from "./json";
export { compareVersions, inLine } from "./versions";
export { isoDate, fillTemplate, placeholdersOf, shown, UNDECIDED } from "./words";
