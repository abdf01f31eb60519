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
export { nextFreeAddress, segmentPlan, type SegmentStretch } from "./segment-plan";
export { portOf, segmentOf, type NetworkGround } from "./ground";
export { networkStage } from "./stage";
