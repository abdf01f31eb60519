export { excerptAt, placeOf } from "./place";
export { parseJson } from "./json";
export { isoDate, fillTemplate, placeholdersOf, shown } from "./words";
