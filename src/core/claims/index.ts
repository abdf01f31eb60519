export {
  addressClaim,
  CLAIM_KINDS,
  dateClaim,
  distinct,
  macClaim,
  nameClaim,
  rivalsAmong,
  serialClaim,
  wordsClaim,
  type Asking,
  type Claim,
  type ClaimKind,
  type Held,
  type Rival,
} from "./claim";
export { identityClaims, machineClaims } from "./machine";
