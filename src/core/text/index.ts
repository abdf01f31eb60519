export { excerptAt, placeOf } from "./place";
export { NestingCount, nestingOf, parseJson, type Nesting } from "./json";
export { openLineOf } from "./lines";
export { compareVersions, inLine } from "./versions";
export { isoDate, fillTemplate, placeholdersOf, shown, UNDECIDED } from "./words";
export { nearestWord, nearQuery, wordsIn } from "./near";
export { isOneOf, keysOf, own } from "./own";
