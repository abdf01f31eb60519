export { dayAt, dayEverywhere, emptySite, firmwareRule, siteDocument, siteSchema, type Site } from "./site";
export { SITE_NAMES, siteEditable } from "./editable";
export {
  formatCircuits,
  formatOccupied,
  formatRanges,
  formatReservations,
  parseAddresses,
  parseCircuits,
  parseOccupied,
  parseRanges,
  parseReservations,
} from "./lists";
