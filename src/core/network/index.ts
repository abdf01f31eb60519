export { segmentSchema, type Segment } from "./segment";
export {
  addressKey,
  addressSortKey,
  boundKeysOf,
  contains,
  edgeOf,
  inRange,
  isAddress,
  isPrivateAddress,
  isPrivateName,
  netmaskOf,
  networkOf,
  parsePrefix,
  prefixLengthOf,
  type Prefix,
} from "./address";
export { addressKind, ADDRESS_KINDS, type AddressKind } from "./address-kind";
export { decodeAddress, readAddress, type AddressPlace, type DecodedAddress } from "./decode";
export { eui64, linkLocalAddress, macIn, slaacAddress } from "./eui64";
export { portNamesOf, portNameWords, portOutlooks, type PortOutlook } from "./port-facts";
export { MOST_NAME_BYTES, predictPortNames, type PortAt, type PortName } from "./port-names";
export { prefixFacts, prefixWords, reverseName, type Ipv4Facts, type Ipv6Facts } from "./prefix-facts";
export { nextFreeAddress, segmentPlan, type SegmentStretch } from "./segment-plan";
export { portOf, segmentOf, type NetworkGround } from "./ground";
export { networkStage } from "./stage";
