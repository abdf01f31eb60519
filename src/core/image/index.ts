export {
  checksumProblem,
  checksumSchema,
  imageSchema,
  insideVerdict,
  verificationOf,
  type Checksum,
  type Image,
} from "./image";
export { profileSchema, PLACEHOLDERS, type Profile, type Screen } from "./profile";
export { parseProfileYaml, profileJsonSchema, renderProfileYaml } from "./profile-yaml";
export { isWeak, matchChecksum, parseChecksumList, type ListedChecksum } from "./checksum-list";
export * from "./inspect";
export type { ImageWork } from "./work";
