export { dayAt, dayEverywhere, emptySite, firmwareRule, siteDocument, siteSchema, type Site } from "./site";
export { proposals, proposedSite, type Proposal } from "./proposed";
export { SITE_NAMES, siteEditable } from "./editable";
export {
  CIRCUIT,
  PARAMETER,
  macOf,
  parseAddresses,
  RANGE,
  RESERVATION,
  SOURCE,
  type Cell,
  type CellRow,
} from "./cells";
export {
  cableCells,
  cableRows,
  cablesFrom,
  DEVICE,
  devicesFrom,
  endFromWords,
  endNames,
  endWords,
  portsFrom,
  SWITCH_PORT,
  type CableRow,
  type DeviceRow,
  type Directory,
  type WiredMachine,
} from "./wiring-cells";
export { siteClaims } from "./claims";
export {
  judgeSite,
  LEDGER_KINDS,
  rejudgeInPlace,
  SITE_MESSAGES,
  SITE_RULES,
  STRETCH_RULES,
  siteFindings,
  type SiteClaim,
  type SiteJudgement,
} from "./whole";
export { offersFrom, takenOver, type Known, type Offer } from "./take-over";
