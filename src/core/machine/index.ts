export * from "./facts";
export * from "./document";
export { driveSchema, MEDIA, type Drive, type DriveContent, type DriveHealth } from "./drive";
export { type BayGroup } from "./layout-schema";
export { machineEditable, WRITTEN_NAMES, writtenSchema, type Written } from "./editable";
export { fillFromList, type Filled } from "./fill";
export { labelsOf, type Label } from "./labels";
export { plainWwn } from "./identity";
export { likelyPort, onlyDrive, ownAddress, type OwnAddress } from "./proposed";
export { renderBsdCollector, renderCollector } from "./collector";
export { isBundle, parseBundle, type Bundle } from "./bundle";
export {
  MAX_TEXT_CHARACTERS,
  readTexts,
  type Intake,
  type NamedText,
  type Rejected,
  type TakenReading,
} from "./intake";
export { mergeReadings, placeDrive, typeFact, type FactChange } from "./merge";
export {
  bayWords,
  contentWords,
  driveLook,
  driveName,
  factName,
  factWords,
  holdsData,
  isUnread,
  isSoundMember,
  machineLine,
  portName,
  presentDrives,
  serialTail,
  standingWords,
  isSeenBySystem,
  visibleDrives,
  sanWords,
  startWords,
} from "./describe";
export {
  bayName,
  drawMachine,
  type Bay,
  type DrawnCard,
  type DrawnGroup,
  type MachineDrawing,
} from "./layout";
export { addressesOf, machineDates, summaryOf, type MachineSummary } from "./summary";
export { hoursWords, judgeDrive, wearWords, type DriveJudgement, type Verdict } from "./health";
export { systemDrives, type SystemDrives } from "./system-drive";
export { compareDelivery, type DeliveryLine } from "./expected";
export {
  cameFrom,
  layOnShelf,
  recordReadBack,
  recordWipe,
  recordWriting,
  SPEED_CLASSES,
  driveDocument,
  registerEntrySchema,
  wipeSchema,
  registerKey,
  sightDrive,
  whereWords,
  WRITTEN,
  type RegisterEntry,
  type Wipe,
} from "./register";
export { looksLikeMachineList, parseMachineList, writeCsv, type ListedMachine } from "./csv";
export {
  MACHINE_CHECKS,
  MACHINE_MESSAGES,
  MACHINE_SHEET_CHECKS,
  type CircuitState,
  type DrivePast,
  type MachineCheck,
  type MachineContext,
} from "./checks";
export { bayGroupSchema } from "./layout-schema";
export { drivesOf, factsOf, modelOf, sourceWords, type OnMachine } from "./on-machine";
export { IMPORTERS } from "./importers";
export { KEY_READINGS, keysRead } from "./keys";
