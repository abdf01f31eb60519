export {
  checksumProblem,
  checksumSchema,
  imageDocument,
  imageSchema,
  insideVerdict,
  loaderSignature,
  PURPOSES,
  startsIn,
  shortModes,
  verificationOf,
  type Checksum,
  type Image,
} from "./image";
export { IMAGE_NAMES, imageEditable, newImage, publishedSchema, type Published } from "./editable";
export * from "./profile";
export { isWeak, matchChecksum, parseChecksumList, type ListedChecksum } from "./checksum-list";
export * from "./inspect";
export { fileInImage, type TreeEntry } from "./tree";
export type { ImageWork } from "./work";
export { deriveRoads, imageOfLeg, targetKind, type Roads, type RoadSources, type ShelfImage } from "./roads";
export { legViews, type LegView } from "./leg-view";
export { profileName, type ImageGround } from "./ground";
export { amountAsked } from "./requirement";
export { IMAGE_CHECKS, IMAGE_MESSAGES } from "./checks";
export {
  draftFamily,
  draftImage,
  shelfMarks,
  supportEndOf,
  UNKNOWN,
  type ImageDraft,
  type ShelfMark,
} from "./shelf";
export { FILE_SYSTEMS, type Partitioning } from "./profile/partitioning";
