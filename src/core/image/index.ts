export {
  checksumProblem,
  checksumSchema,
  imageDocument,
  imageSchema,
  insideVerdict,
  loaderSignature,
  PURPOSES,
  verificationOf,
  type Checksum,
  type Image,
} from "./image";
export * from "./profile";
export { isWeak, matchChecksum, parseChecksumList, type ListedChecksum } from "./checksum-list";
export * from "./inspect";
export type { ImageWork } from "./work";
export { draftImage, shelfMarks, type ImageDraft, type ShelfMark } from "./shelf";
