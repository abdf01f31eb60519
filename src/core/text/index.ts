export { excerptAt, placeOf } from "./place";
export { parseJson } from "./json";
export { compareVersions, inLine } from "./versions";
export { isoDate, fillTemplate, placeholdersOf, shown, UNDECIDED } from "./words";
