export { excerptAt, placeOf } from "./place";
export { NestingCount, nestingOf, parseJson, type Nesting } from "./json";
export { openLineOf } from "./lines";
export { compareVersions, inLine } from "./versions";
export { fillTemplate, placeholdersOf, shown, UNDECIDED } from "./words";
export { term, terms } from "./terms";
export { nearestWord, nearQuery, wordsIn } from "./near";
export { isOneOf, keysOf, own } from "./own";
