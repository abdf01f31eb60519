interface SettingKind {
  title: string;
  /** Other words that firmware has for it, without the names that makers give their own parts. */
  words: string;
  /** The page where it usually stands. */
  where: string;
  /** Names under which firmware reports it to a management controller. */
  named: RegExp;
}

/** Settings of firmware that a build decides about. Makers name and place each of them differently. */
export const SETTINGS = {
  mode: {
    title: "Boot mode",
    words: "boot list option, UEFI boot, legacy boot",
    where: "Boot",
    named: /^boot_?mode$/i,
  },
  compatibility: {
    title: "Legacy support",
    words: "compatibility support module, CSM, legacy option ROMs",
    where: "Boot, or Advanced",
    named: /csm|legacy_?support|compatibility_?support/i,
  },
  secureBoot: {
    title: "Secure Boot",
    words: "secure boot control, key management, OS type",
    where: "Security, or Boot",
    named: /^secure_?boot(_?(control|state|enable))?$/i,
  },
  virtualisation: {
    title: "Virtualisation",
    words: "virtual machine support, processor virtualisation",
    where: "Advanced, Processor",
    named: /^(proc_?)?virtuali[sz]ation/i,
  },
  iommu: {
    title: "IOMMU",
    words: "I/O virtualisation, directed I/O, DMA remapping",
    where: "Advanced, Chipset",
    named: /iommu|directed_?io|dma_?remapping/i,
  },
  sriov: {
    title: "SR-IOV",
    words: "single-root I/O virtualisation, PCIe virtual functions",
    where: "Advanced, PCI",
    named: /sr_?iov/i,
  },
  powerLoss: {
    title: "After power loss",
    words: "restore on AC loss, power restore policy, AC recovery",
    where: "Power, or Chipset",
    named: /ac_?(power_?)?(recovery|loss|restore)|power_?(restore|loss)/i,
  },
  wake: {
    title: "Wake on LAN",
    words: "power on by network, wake up by PCIe",
    where: "Power",
    named: /wake_?on_?lan|wake_?up_?by/i,
  },
  networkBoot: {
    title: "Network boot",
    words: "PXE, network stack, UEFI network, HTTP boot",
    where: "Network, or Advanced",
    named: /^(pxe|network_?(stack|boot))/i,
  },
  graphics: {
    title: "Primary graphics",
    words: "primary display, embedded video, video priority",
    where: "Advanced, Graphics",
    named: /primary_?(display|graphics|video)|embedded_?video/i,
  },
  fans: {
    title: "Fan profile",
    words: "fan mode, thermal profile, cooling policy",
    where: "Hardware monitor",
    named: /fan_?(mode|profile|policy)|thermal_?(profile|configuration)/i,
  },
  storageMode: {
    title: "Storage controller",
    words: "SATA mode, AHCI or RAID, controller personality",
    where: "Storage, or Advanced",
    named: /^(embedded_?|onboard_?)?(sata|storage)_?(controller_?)?mode$|emb_?sata$/i,
  },
  clock: {
    title: "Clock",
    words: "system time, real-time clock",
    where: "Main",
    named: /^$/,
  },
  order: {
    title: "Boot order",
    words: "boot sequence, boot option priorities, fixed boot order",
    where: "Boot",
    named: /^$/,
  },
} as const satisfies Record<string, SettingKind>;

export type SettingKey = keyof typeof SETTINGS;
export const SETTING_KEYS = Object.keys(SETTINGS) as SettingKey[];
