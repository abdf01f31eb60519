export { accountKeySchema, accountSchema, isHash, type Account, type AccountKey } from "./accounts";
export { isTimeZone } from "../units";
export { accountNameProblem, hostNameProblem, domainProblem } from "./names";
export { fitsPattern, namePatternProblem, nextName, patternOf, stemOf } from "./naming";
export { publicKeyLine, readPublicKey, type PublicKey } from "./public-key";
export * from "./keyboard";
export * from "./passwords";
export {
  keyMatrix,
  type KeyDoor,
  type KeyedMachine,
  type KeyHolder,
  type KeyRow,
  type SiteKey,
  type SiteSecret,
} from "./key-matrix";
