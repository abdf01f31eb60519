// Thornhope and Cold Lane: two mini PCs, the backup desktop, and a workstation to be judged.
import type { MachineDocument } from "@/core/machine";
import {
  DAY,
  dated,
  day,
  drive,
  memory,
  pci,
  port,
  read,
  systemOf,
  temperature,
  firstPartition,
} from "./parts";

const pippin = (
  serial: string,
  n: number,
  disk: string,
  minutesAgo: number,
  os: object,
  contents: {
    part: string;
    sizeBytes: number;
    kind: string;
    label?: string;
    mountedAt?: string[];
    partUuid?: string;
  }[],
): MachineDocument =>
  read(
    {
      chassis: { maker: "Pippin", model: "3", serial, form: "Mini PC", weightKilograms: 0.9 },
      firmware: {
        mode: "uefi",
        maker: "Pippin",
        version: "1.24",
        releaseDate: "02/20/2025",
        order: ["0001"],
        entries: [
          {
            id: "0001",
            label: "Solid-state drive",
            active: true,
            kind: "disk",
            path: `HD(1,GPT,${firstPartition(n)},0x800,0x100000)`,
          },
        ],
      },
      processors: {
        model: "Silica Wren 8",
        maker: "Silica",
        architecture: "x86_64",
        level: "x86-64-v3",
        sockets: 1,
        cores: 8,
        threads: 8,
        virtualisation: true,
      },
      memory: memory(1, 16, 15.4),
      system: { nameServers: ["10.61.20.1"], ...os },
      drives: [
        drive(disk, "Sallow 512", 512_110_190_592, "nvme", "nvme0n1", {
          maker: "Sallow",
          contents,
          health: {
            passed: true,
            hours: n === 1 ? 11_840 : 620,
            wearPercent: n === 1 ? 12 : 0,
            temperatureC: 44,
            mediaErrors: 0,
            warnings: [],
          },
        }),
      ],
      ports: [
        { ...port(1, `02:61:14:00:00:0${n}`, "up", "01:00.0", "enp1s0"), maxMegabits: 2500 },
        {
          mac: `02:61:14:00:01:0${n}`,
          seenAs: "wlp2s0",
          kind: "wireless" as const,
          link: "down" as const,
          pci: "02:00.0",
        },
      ],
      pci: [
        pci("01:00.0", "0200", "Ethernet controller", "Silica", "2.5G port", "f0a1:125c", { driver: "s25g" }),
        pci("02:00.0", "0280", "Network controller", "Linnet", "wireless card", "f0e5:7922", {
          driver: "lnw",
        }),
      ],
      sensors: [temperature("processor", n === 1 ? 52 : 49, 95, 105)],
    },
    minutesAgo,
    { present: false },
    {
      role: "general server",
      place: `wall cabinet, ${n === 1 ? "upper" : "lower"} shelf`,
      circuit: "cabinet",
      keys: { setup: "Del", bootMenu: "F7", network: "", seconds: 8 },
      noise: "not heard",
    },
    "No management controller: an operator must work at the cabinet. The cabinet key is in the pump room.",
  );

export const thornhopeA = pippin(
  "PPN30051",
  1,
  "SLW5129931",
  2 * DAY,
  { osId: "saddler", osName: "Saddler Linux 22", osVersion: "22", hostName: "tho-a" },
  [
    { part: "nvme0n1p1", sizeBytes: 536_870_912, kind: "vfat", label: "EFI", partUuid: firstPartition(1) },
    { part: "nvme0n1p2", sizeBytes: 511_500_000_000, kind: "ext4", label: "old-root" },
  ],
);
/** As it was delivered: nothing on its drive. */
export const thornhopeBBefore = pippin("PPN30052", 2, "SLW5129944", 30 * DAY, {}, []);
/** As it was handed over: what its acceptance read came home. */
export const thornhopeB = pippin(
  "PPN30052",
  2,
  "SLW5129944",
  22 * DAY,
  systemOf(
    { osId: "lowland", osName: "Lowland Server 7.4", osVersion: "7.4" },
    "tho-b",
    { interface: "enp1s0", address: "10.61.20.12", prefixLength: 26, gateway: "10.61.20.1" },
    { size: 509_000_000_000, free: 503_200_000_000 },
  ),
  [
    {
      part: "nvme0n1p1",
      sizeBytes: 629_145_600,
      kind: "vfat",
      label: "EFI",
      mountedAt: ["/boot/efi"],
      partUuid: firstPartition(2),
    },
    { part: "nvme0n1p2", sizeBytes: 511_400_000_000, kind: "xfs", label: "root", mountedAt: ["/"] },
  ],
);

/** Handed over a month ago: the restore drill is overdue, and the root volume takes a small part of the drive. */
const backup = (
  minutesAgo: number,
  system: object,
  contents: {
    part: string;
    sizeBytes: number;
    kind: string;
    label?: string;
    mountedAt?: string[];
    partUuid?: string;
  }[],
): MachineDocument =>
  read(
    {
      chassis: { maker: "Generic", model: "Desktop", serial: "CL-0007", form: "Desktop", weightKilograms: 9 },
      firmware: {
        mode: "legacy",
        maker: "Generic",
        version: "F8",
        releaseDate: "08/11/2015",
        order: [],
        entries: [],
      },
      processors: {
        model: "Silica Rook 4",
        maker: "Silica",
        architecture: "x86_64",
        level: "x86-64-v3",
        sockets: 1,
        cores: 4,
        threads: 4,
        virtualisation: true,
      },
      memory: memory(2, 4, 7.7, "DDR3", 1600),
      system,
      drives: [
        drive("CDB4T00931", "Caldbeck 4000", 4_000_787_030_016, "spinning", "sda", {
          maker: "Caldbeck",
          rotationRpm: 5400,
          health: { passed: true, hours: 8240, temperatureC: 36, reallocated: 0, warnings: [] },
          contents,
        }),
      ],
      ports: [port(1, "02:61:1e:00:00:01", "up", "03:00.0", "enp3s0")],
      pci: [
        pci("03:00.0", "0200", "Ethernet controller", "Rushden", "gigabit port", "f0d4:8168", {
          driver: "rgb",
        }),
      ],
      sensors: [temperature("processor", 39, 80, 100)],
    },
    minutesAgo,
    { present: false },
    {
      role: "backup",
      place: "store room, shelf 1",
      circuit: "office",
      keys: { setup: "Del", bootMenu: "F12", network: "", seconds: 12 },
      dates: [dated("Restore drill", day(-3), "J. Pell")],
      noise: "disk noise at night",
    },
    "Handed over on 24 October. The root volume still has the default size of the installer; the rest of the disk is unused.",
  );

/** As it stood in the office: a desktop with somebody's files. */
export const coldLaneBackupBefore = backup(
  33 * DAY,
  { osName: "an old desktop system", nameServers: ["10.61.30.1"] },
  [{ part: "sda1", sizeBytes: 4_000_000_000_000, kind: "ntfs", label: "Office" }],
);
export const coldLaneBackup = backup(
  31 * DAY,
  systemOf(
    { osId: "hopper", osName: "Hopper Backup 3.2", osVersion: "3.2" },
    "cl-bk1",
    { interface: "enp3s0", address: "10.61.30.12", prefixLength: 24, gateway: "10.61.30.1" },
    { size: 105_000_000_000, free: 88_400_000_000 },
  ),
  [
    { part: "sda1", sizeBytes: 1_073_741_824, kind: "ext4", label: "boot", mountedAt: ["/boot"] },
    { part: "sda2", sizeBytes: 107_374_182_400, kind: "ext4", label: "root", mountedAt: ["/"] },
  ],
);

/** Judged for use as a small hypervisor: power, heat and shared pass-through groups argue against it. */
export const coldLaneWorkstation = read(
  {
    chassis: { maker: "Varley", model: "W7", serial: "VRW70318", form: "Tower", weightKilograms: 24 },
    firmware: {
      mode: "uefi",
      maker: "Varley",
      version: "1.09",
      releaseDate: "03/28/2017",
      order: [],
      entries: [],
    },
    processors: {
      model: "Silica Heron 10",
      maker: "Silica",
      architecture: "x86_64",
      level: "x86-64-v3",
      sockets: 1,
      cores: 10,
      threads: 20,
      virtualisation: true,
      iommu: true,
      maxMegahertz: 3900,
    },
    memory: {
      ...memory(3, 16, 47.2, "DDR4", 2400),
      modules: [
        ...memory(2, 16, 0, "DDR4", 2400).modules,
        { slot: "DIMM C1", sizeBytes: 8 * 2 ** 30, kind: "DDR4", megatransfers: 2133 },
      ],
      installedBytes: 40 * 2 ** 30,
      recognisedBytes: Math.round(39.1 * 2 ** 30),
    },
    system: {
      osId: "saddler",
      osName: "Saddler Linux 24",
      osVersion: "24",
      hostName: "cl-ws1",
      nameServers: ["10.61.30.1"],
    },
    drives: [
      drive("BRC1T0042", "Birch 1000", 1_000_204_886_016, "flash", "sda", {
        maker: "Birch",
        health: {
          passed: true,
          hours: 26_300,
          wearPercent: 88,
          temperatureC: 47,
          reallocated: 2,
          warnings: [],
        },
        contents: [
          { part: "sda2", sizeBytes: 999_000_000_000, kind: "ext4", label: "root", mountedAt: ["/"] },
        ],
      }),
      drive("CDB2T77120", "Caldbeck 2000", 2_000_398_934_016, "spinning", "sdb", {
        maker: "Caldbeck",
        rotationRpm: 7200,
      }),
    ],
    ports: [port(1, "02:61:1e:00:00:07", "up", "05:00.0", "enp5s0")],
    pci: [
      pci("01:00.0", "0300", "VGA compatible controller", "Kestrel", "Kestrel 40 graphics", "f0c3:1b30", {
        driver: "kgfx",
        iommuGroup: 1,
        place: "slot 1",
      }),
      pci("01:00.1", "0403", "Audio device", "Kestrel", "Kestrel 40 sound", "f0c3:10f0", {
        iommuGroup: 1,
        place: "slot 1",
      }),
      pci("02:00.0", "0300", "VGA compatible controller", "Kestrel", "Kestrel 20 graphics", "f0c3:1c30", {
        driver: "kgfx",
        iommuGroup: 14,
        place: "slot 4",
      }),
      pci("03:00.0", "0106", "SATA controller", "Rushden", "second SATA controller", "f0d4:0612", {
        driver: "ahci",
        iommuGroup: 14,
      }),
      pci("05:00.0", "0200", "Ethernet controller", "Silica", "gigabit port", "f0a1:15b8", {
        driver: "sgb",
        iommuGroup: 9,
      }),
    ],
    sensors: [temperature("processor", 66, 84, 94), temperature("Kestrel 40", 58, 92)],
  },
  1 * DAY,
  { present: false },
  {
    role: "bench",
    use: "lab",
    place: "store room, floor",
    circuit: "office",
    keys: { setup: "F1", bootMenu: "F12", network: "", seconds: 25 },
    defects: [
      {
        id: "d-usb",
        what: "two of the front USB sockets are dead",
        affects: "other",
        since: day(-2),
        by: "J. Pell",
        mendedOn: null,
      },
    ],
    noise: "fan speed rises under load; too loud for the office",
  },
  "Test bench: can it run three small guests for the office?",
);
