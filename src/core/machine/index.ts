export * from "./facts/facts";
export * from "./facts/document";
export { driveSchema, MEDIA, type Drive, type DriveContent, type DriveHealth } from "./facts/drive";
export { type BayGroup } from "./facts/layout-schema";
export { machineEditable, WRITTEN_NAMES, writtenSchema, type Written } from "./document/editable";
export { fillFromList, type Filled } from "./intake/fill";
export { labelsOf, type Label } from "./document/labels";
export { machineParts, partsWith, type MachinePart } from "./document/parts";
export { plainWwn } from "./facts/identity";
export { likelyPort, onlyDrive, ownAddress, type OwnAddress } from "./document/proposed";
export { renderBsdCollector, renderCollector } from "./intake/collector";
export { isBundle, parseBundle, type Bundle } from "./intake/bundle";
export {
  MAX_TEXT_CHARACTERS,
  readTexts,
  type Intake,
  type NamedText,
  type Rejected,
  type TakenReading,
} from "./intake/intake";
export { mergeReadings } from "./intake/merge";
export { readingInto, readToShow } from "./intake/read-into";
export type { IntakeAsk, IntakeWord, ReadInto, ReadToShow } from "./intake/read-into";
export { type FactChange } from "./intake/merging";
export { placeDrive, typeFact } from "./document/by-hand";
export {
  bayWords,
  MEDIA_NAMES,
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
  contentsToday,
  standingWords,
  isSeenBySystem,
  visibleDrives,
  sanWords,
  startWords,
} from "./facts/describe";
export {
  bayName,
  drawMachine,
  type Bay,
  type DrawnCard,
  type DrawnGroup,
  type MachineDrawing,
} from "./document/layout";
export { addressesOf, machineDates, summaryOf, type MachineSummary } from "./document/summary";
export { hoursWords, judgeDrive, wearWords, type DriveJudgement, type Verdict } from "./drives/health";
export { systemDrives, type SystemDrives } from "./document/system-drive";
export { compareDelivery, type DeliveryLine } from "./document/expected";
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
} from "./drives/register";
export { looksLikeMachineList, parseMachineList, writeCsv, type ListedMachine } from "./intake/csv";
export {
  MACHINE_CHECKS,
  MACHINE_MESSAGES,
  MACHINE_SHEET_CHECKS,
  type CircuitState,
  type DrivePast,
  type MachineCheck,
  type MachineContext,
} from "./checks";
export { bayGroupSchema } from "./facts/layout-schema";
export { drivesOf, factsOf, modelOf, sourceWords, type OnMachine } from "./document/on-machine";
export { IMPORTERS } from "./intake/importers";
export { KEY_READINGS, keysRead } from "./facts/keys";
