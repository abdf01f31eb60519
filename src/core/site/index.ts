export { dayAt, dayEverywhere, emptySite, firmwareRule, siteDocument, siteSchema, type Site } from "./site";
export { proposals, proposedSite, type Proposal } from "./proposed";
export { SITE_NAMES, siteEditable } from "./editable";
export { CIRCUIT, OCCUPIED, parseAddresses, RANGE, RESERVATION, type Cell, type CellRow } from "./cells";
