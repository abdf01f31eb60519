export { segmentSchema, type Segment } from "./segment";
export {
  addressKey,
  addressSortKey,
  addressText,
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
export { formatVlans, holdsVlan, isVlanList, parseVlans, type VlanStretch } from "./vlans";
export {
  carries,
  DEVICE_KINDS,
  deviceSchema,
  LOG_INS,
  portNames,
  switchPort,
  switchPortSchema,
  type Device,
  type SwitchPort,
} from "./device";
export {
  cableLabels,
  cableSchema,
  endKey,
  farPort,
  type Cable,
  type CableEnd,
  type FarPort,
  type Wiring,
} from "./cable";
export {
  BOND_MODES,
  BOND_WORDS,
  buildOrder,
  HASHES,
  INTERFACE_KINDS,
  isInterfaceName,
  isMac,
  newInterface,
  portsBelow,
  PURPOSES,
  stackBelow,
  withInterface,
  type Interface,
  type InterfaceKind,
  type PortGroup,
} from "./interface";
export {
  isOpenOutside,
  KNOWN_SERVICES,
  OUTSIDE,
  serviceWords,
  waysNotConsidered,
  WAYS_IN,
  type Service,
  type WayIn,
} from "./service";
export { networkUses, type NetworkUse } from "./uses";
export { networkSlice, type NetworkSlice } from "./slice";
export { NETWORK_READERS, readNetworkText, type NetworkReading, type NetworkRow } from "./read";
export { portOf, segmentOf, type NetworkGround, type PlannedOn } from "./ground";
export { networkStage } from "./stage";
export { segmentsOfCable, segmentsOfPort } from "./picture";
export {
  hostPlan,
  writeIfupdown,
  isDomain,
  isLabel,
  labelOf,
  namedHosts,
  NETWORK_WRITERS,
  reverseZoneOf,
  netplanTree,
  shellWord,
  timedCommands,
  timedFiles,
  writeAddressTable,
  writeCableTable,
  writeCommands,
  writePortTable,
  writeDnsmasq,
  writeHosts,
  writeKea,
  writeKea6,
  writeKnownHosts,
  writeReverseZones,
  writeSshConfig,
  writeZone,
  type HostPlan,
  type LinkAddress,
  type LinkPlan,
  type SiteHost,
  type SitePlan,
  type WrittenFile,
} from "./write";
export { consoleLines, type ConsoleLine } from "./console";
export { farPortOf, farWords } from "./uses";
export { sourceProblem } from "./source";
export { hostKeyOf, isHostKey, readHostKeys } from "./host-key";
