import type { Problem } from "../../result";
import type { HostPlan, WrittenFile } from "./host-plan";
import { writeIfupdown } from "./ifupdown";
import { writeKeyfiles } from "./keyfile";
import { writeNetplan } from "./netplan";
import { writeNetworkd } from "./networkd";
import { writeRcConf } from "./rc-conf";

/** The formats in which the network of a machine is written, under the names that administrators call them by. */
export const NETWORK_WRITERS: Readonly<
  Record<string, (plan: HostPlan) => { files: WrittenFile[]; problems: Problem[] }>
> = {
  netplan: writeNetplan,
  "systemd-networkd": writeNetworkd,
  interfaces: writeIfupdown,
  "key files": writeKeyfiles,
  "rc.conf": writeRcConf,
};

export {
  hostPlan,
  isDomain,
  isLabel,
  type HostPlan,
  type LinkAddress,
  type LinkPlan,
  type WrittenFile,
} from "./host-plan";
export { namedHosts, labelOf, type SiteHost, type SitePlan } from "./site-plan";
export { writeDnsmasq, writeKea, writeKea6 } from "./dhcp";
export { reverseZoneOf, writeHosts, writeReverseZones, writeZone } from "./names";
export { writeKnownHosts, writeSshConfig } from "./ssh";
export { writeIfupdown } from "./ifupdown";
export { netplanTree } from "./netplan";
export { shellWord } from "./shell-word";
export { writeCommands } from "./commands";
export { timedCommands, timedFiles } from "./timed";
export { writeAddressTable, writeCableTable, writePortTable } from "./tables";
