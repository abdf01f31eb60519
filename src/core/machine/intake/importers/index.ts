import { camcontrol, geomDisk, gpart } from "./bsd-drives";
import { ifconfig, netstat } from "./bsd-network";
import { pciconf, sysctl } from "./bsd-system";
import { blkid } from "./blkid";
import { dmidecode } from "./dmidecode";
import { efibootmgr } from "./efibootmgr";
import type { Importer } from "./importer";
import { ipAddress, ipLink, ipRoute } from "./ip";
import { lsblk } from "./lsblk";
import { sockstat, ss } from "./listening";
import { lscpu } from "./lscpu";
import { lshw } from "./lshw";
import { lsusb } from "./lsusb";
import { mdadmDetail, mdstat } from "./mdadm";
import { nvmeList } from "./nvme";
import { iommuGroups, lspci, lspciVerbose } from "./pci";
import { osRelease, settings } from "./plain";
import { redfish } from "./redfish";
import { sensors } from "./sensors";
import { smartctl } from "./smartctl";
import { starts } from "./starts";
import { zpoolImport, zpoolList, zpoolStatus } from "./zpool";

/** Every importer, in the order in which readings are laid over each other: what knows less comes first. */
export const IMPORTERS: readonly Importer[] = [
  settings,
  osRelease,
  lscpu,
  sysctl,
  redfish,
  lsblk,
  blkid,
  geomDisk,
  gpart,
  camcontrol,
  starts,
  nvmeList,
  smartctl,
  ipAddress,
  ipLink,
  ipRoute,
  ifconfig,
  netstat,
  ss,
  sockstat,
  pciconf,
  lspci,
  lspciVerbose,
  lsusb,
  iommuGroups,
  lshw,
  dmidecode,
  efibootmgr,
  sensors,
  mdstat,
  mdadmDetail,
  zpoolList,
  zpoolImport,
  zpoolStatus,
];

export { lastWords } from "./importer";
export type { Importer, Observed, Reading } from "./importer";
