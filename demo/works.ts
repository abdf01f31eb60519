// Works: two hypervisor hosts, the storage server, and the host of the telemetry database.
import type { MachineDocument, Typed } from "@/core/machine";
import { at, DAY, dated, day, drive, memory, pci, port, read, temperature, firstPartition } from "./parts";

const SIX_PORTS = (slot: string) =>
  [0, 1, 2, 3, 4, 5].map((n) =>
    pci(`${slot}.${n}`, "0200", "Ethernet controller", "Silica", "six-port adapter", "f0a1:1521", {
      driver: "sgb",
      iommuGroup: 30 + n,
      place: "LAN 1 to 6",
    }),
  );
const SUPPLIES = (watts: number, second = "OK") => [
  { id: "PSU 1", model: `Ostler ${watts}`, ratedWatts: watts, state: "OK" },
  { id: "PSU 2", model: `Ostler ${watts}`, ratedWatts: watts, state: second },
];
const HALDEN = pci(
  "5e:00.0",
  "0104",
  "RAID bus controller",
  "Halden",
  "Halden 9 array controller",
  "f0b2:0079",
  {
    driver: "hsas",
    iommuGroup: 52,
    place: "slot 1",
  },
);
const R114_BAYS: Typed["bays"] = [
  { title: "Front", face: "front", size: "small", columns: 8, rows: 1, first: 0, order: "rows", prefix: "" },
  {
    title: "Boot module",
    face: "inside",
    size: "card",
    columns: 1,
    rows: 1,
    first: 0,
    order: "rows",
    prefix: "boot module",
  },
];
const R114_KEYS: Typed["keys"] = { setup: "F2", bootMenu: "F11", network: "F12", seconds: 90 };
const delivery = (serial: string): Typed["expected"] => ({
  from: "delivery note 4471-2, March 2021",
  model: "R114",
  serial,
  cores: 24,
  memoryBytes: 256 * 2 ** 30,
  memoryModules: 8,
  ports: 6,
  drives: [{ count: 4, sizeBytes: 1_200_243_695_616, model: "Teasel" }],
});

const r114 = (
  serial: string,
  last: string,
  o: {
    bootCard: string;
    store: string;
    minutesAgo: number;
    controller: string;
    unit: number;
    bootState: "mid-sync" | "whole";
  },
): MachineDocument =>
  read(
    {
      chassis: {
        maker: "Ostler",
        model: "R114",
        serial,
        assetTag: `MW-${last}`,
        form: "Rack Mount Chassis",
        rackUnits: 1,
        weightKilograms: 17.5,
      },
      firmware: {
        mode: "uefi",
        maker: "Ostler",
        version: "2.11.2",
        releaseDate: "05/14/2024",
        secureBoot: true,
        order: ["0003", "0001", "0002"],
        entries: [
          { id: "0001", label: "Virtual CD", active: true, kind: "optical", path: "USB(0x4,0x0)/CDROM(0x0)" },
          {
            id: "0002",
            label: "Network port 1",
            active: true,
            kind: "network",
            path: `PciRoot(0x0)/Pci(0x1c,0x0)/Pci(0x0,0x0)/MAC(02610a00${last}01,1)/IPv4(0.0.0.0,0,0)`,
          },
          {
            id: "0003",
            label: "Boot module",
            active: true,
            kind: "disk",
            path: `HD(1,GPT,${firstPartition(last)},0x800,0x32000)/File(\\EFI\\BOOT\\BOOTX64.EFI)`,
          },
        ],
      },
      processors: {
        model: "Silica Tern 24",
        maker: "Silica",
        architecture: "x86_64",
        level: "x86-64-v3",
        sockets: 2,
        cores: 24,
        threads: 48,
        virtualisation: true,
        iommu: true,
        maxMegahertz: 3400,
      },
      memory: memory(8, 32, 255.4),
      system: {
        osId: "cairn",
        osName: "Cairn Hypervisor 6.7",
        osVersion: "6.7",
        hostName: `wrk-hv${last === "14" ? 1 : 2}`,
        nameServers: ["10.61.10.2"],
      },
      drives: [
        drive(o.bootCard, "BOOTCARD-A", 63_999_836_160, "card", "sda", {
          bay: "boot module",
          presentedBy: "BOOTCARD-A",
          controller: "BOOT.1",
          contents: [
            {
              part: "sda1",
              sizeBytes: 104_857_600,
              kind: "vfat",
              label: "BOOT",
              partUuid: firstPartition(last),
            },

            { part: "sda2", sizeBytes: 4_294_967_296, kind: "vfat", label: "CAIRN6" },
          ],
        }),
        drive(o.store, "R5-DATA", 3_600_000_000_000, "spinning", "sdb", {
          presentedBy: "R5-DATA",
          controller: "5e:00.0",
          contents: [
            { part: "sdb1", sizeBytes: 3_599_000_000_000, kind: "guest store", label: `store-${last}` },
          ],
        }),
        ...[0, 1, 2, 3].map((n) =>
          drive(`TSL12${last}0${n}7`, "Teasel 1200", 1_200_243_695_616, "spinning", "?", {
            bay: String(n),
            maker: "Teasel",
            rotationRpm: 10_000,
            controller: "5e:00.0",
            memberOf: ["virtual drive R5-DATA"],
            health: {
              passed: true,
              hours: 31_200 + n * 40,
              temperatureC: 33 + n,
              reallocated: last === "15" && n === 2 ? 6 : 0,
              warnings: [],
            },
          }),
        ),
      ],
      sets: [
        {
          id: "virtual drive BOOTCARD-A",
          kind: "virtual drive",
          name: "BOOTCARD-A",
          level: "mirror of two cards",
          state: o.bootState === "whole" ? "whole" : "degraded: secondary card syncing",
          health: o.bootState === "whole" ? "good" : "degraded",
          sizeBytes: 63_999_836_160,
          members: [
            { name: "card 1", state: "OK" },
            { name: "card 2", state: o.bootState === "whole" ? "OK" : "syncing" },
          ],
          progress: o.bootState === "whole" ? null : { what: "sync", percent: 38, secondsLeft: 2400 },
        },
        {
          id: "virtual drive R5-DATA",
          kind: "virtual drive",
          name: "R5-DATA",
          level: "RAID 5",
          state: "OK",
          health: "good",
          sizeBytes: 3_600_000_000_000,
          members: [0, 1, 2, 3].map((n) => ({ name: `bay ${n}`, drive: `TSL12${last}0${n}7`, state: "OK" })),
        },
      ],
      storageControllers: [
        { id: "5e:00.0", name: "Halden 9 array controller", mode: "RAID", firmware: "51.16.0", health: "OK" },
        {
          id: "BOOT.1",
          name: "boot-card module",
          mode: "boot module",
          firmware: "1.8",
          health: o.bootState === "whole" ? "OK" : "Warning",
        },
      ],
      ports: [1, 2, 3, 4, 5, 6].map((n) =>
        port(n, `02:61:0a:00:${last}:0${n}`, n < 3 ? "up" : "down", `18:00.${n - 1}`),
      ),
      pci: [...SIX_PORTS("18:00"), HALDEN],
      sensors: [
        temperature("inlet", 23, 38, 42),
        temperature("processor 1", 47, 88, 98),
        temperature("processor 2", last === "15" ? 81 : 49, 88, 98),
        { id: "fan 1", kind: "fan", value: 6120 },
        { id: "fan 4", kind: "fan", value: last === "15" ? 2280 : 6090 },
        { id: "whole machine", kind: "power", value: 196 },
      ],
      powerSupplies: SUPPLIES(800),
    },
    o.minutesAgo,
    {
      present: true,
      kind: "Ostler remote controller",
      firmware: "4.40",
      address: o.controller,
      virtualMedia: "licensed",
      mediaBytesPerSecond: 1_300_000,
    },
    {
      role: "hypervisor",
      place: `rack A, unit ${o.unit}`,
      circuit: "A1",
      bays: R114_BAYS,
      keys: R114_KEYS,
      expected: delivery(serial),
      firmware: [
        {
          part: "management controller",
          installed: "4.40",
          available: "4.60",
          decision: last === "14" ? "postponed" : "undecided",
          due: last === "14" ? day(12) : null,
          reason: last === "14" ? "after the host runs Cairn 9, to change one thing at a time" : "",
          by: "M. Arkle",
          at: "2026-11-19T09:20:00.000Z",
        },
      ],
      defects:
        last === "15"
          ? [
              {
                id: "d-fan4",
                what: "fan 4 runs at a third of its speed, processor 2 is hot",
                affects: "temperature",
                since: day(-40),
                by: "J. Pell",
                mendedOn: null,
              },
            ]
          : [],
      noise: "loud for two minutes after power-on, then quiet",
    },
    "Press the key when the vendor's logo appears. The boot module has its own page in the firmware setup, under Integrated devices.",
  );

/** The module told of its sync when the first system was on it, some minutes ago. */
const syncRead = (machine: MachineDocument): MachineDocument => ({
  ...machine,
  sources: {
    ...machine.sources,
    "sets.virtual drive BOOTCARD-A": { tool: "redfish", from: "boot-module.json", at: at(24) },
  },
});

const HV1 = {
  bootCard: "BM4471907F31",
  store: "R5D9A00514",
  minutesAgo: 5 * DAY,
  controller: "10.61.10.214",
  unit: 14,
};
export const wrkHv1 = syncRead(r114("OST7K2M14", "14", { ...HV1, bootState: "mid-sync" }));
/** As it stood before its build began: the cards were whole. */
export const wrkHv1Before = r114("OST7K2M14", "14", { ...HV1, bootState: "whole" });
export const wrkHv2 = r114("OST7K2M15", "15", {
  bootCard: "BM4471907F58",
  store: "R5D9A00515",
  minutesAgo: 4 * DAY,
  controller: "10.61.10.215",
  unit: 15,
  bootState: "whole",
});

const poolDrive = (i: number) => `CDB12T${(4410 + i * 7).toString()}`;

export const wrkSt1 = read(
  {
    chassis: {
      maker: "Ostler",
      model: "R212",
      serial: "OST7K2S01",
      assetTag: "MW-16",
      form: "Rack Mount Chassis",
      rackUnits: 2,
      weightKilograms: 31,
    },
    firmware: {
      mode: "uefi",
      maker: "Ostler",
      version: "2.9.0",
      releaseDate: "11/02/2023",
      secureBoot: false,
      order: [],
      entries: [],
    },
    processors: {
      model: "Silica Tern 12",
      maker: "Silica",
      architecture: "x86_64",
      level: "x86-64-v3",
      sockets: 1,
      cores: 12,
      threads: 24,
      virtualisation: true,
      iommu: true,
    },
    memory: memory(4, 32, 127.5),
    system: {
      osId: "cistern",
      osName: "Cistern NAS 9.10",
      osVersion: "9.10",
      hostName: "wrk-st1",
      nameServers: ["10.61.10.2"],
    },
    drives: [
      drive("ALD240A7710", "Alder 240", 240_057_409_536, "flash", "sda", {
        bay: "rear 0",
        controller: "00:17.0",
        health: {
          passed: true,
          hours: 35_410,
          wearPercent: 61,
          temperatureC: 38,
          reallocated: 0,
          writtenBytes: 92_400_000_000_000,
          warnings: [],
        },
        contents: [{ part: "sda2", sizeBytes: 239_000_000_000, kind: "zfs_member", label: "boot-pool" }],
        memberOf: ["pool boot-pool"],
      }),
      ...Array.from({ length: 11 }, (_, i) =>
        drive(
          poolDrive(i),
          i === 7 ? "Caldbeck 14000" : "Caldbeck 12000",
          i === 7 ? 14_000_519_643_136 : 12_000_138_625_024,
          "spinning",
          `sd${"bcdefghijkl"[i]}`,
          {
            bay: String(i),
            maker: "Caldbeck",
            rotationRpm: 7200,
            controller: "3b:00.0",
            health: {
              passed: true,
              hours: i === 7 ? 9120 : i === 10 ? 44_730 : 35_380 + i * 3,
              temperatureC: 34 + (i % 5),
              reallocated: i === 4 ? 14 : 0,
              pending: i === 8 ? 3 : 0,
              selfTest: { kind: "Extended offline", passed: true, atHours: 35_000 },
              warnings: [],
            },
            ...(i < 10 && {
              contents: [
                { part: "p2", sizeBytes: 11_990_000_000_000, kind: "zfs_member", label: "reservoir" },
              ],
              memberOf: ["pool reservoir"],
            }),
          },
        ),
      ),
    ],
    sets: [
      {
        id: "pool boot-pool",
        kind: "pool",
        name: "boot-pool",
        level: "single",
        state: "ONLINE",
        health: "good",
        sizeBytes: 238_370_684_928,
        members: [{ name: "sda2", drive: "ALD240A7710", state: "ONLINE" }],
      },
      {
        id: "pool reservoir",
        kind: "pool",
        name: "reservoir",
        level: "raidz2",
        state: "ONLINE",
        health: "degraded",
        sizeBytes: 119_982_018_658_304,
        members: Array.from({ length: 10 }, (_, i) => ({
          name: `sd${"bcdefghijk"[i]}2`,
          drive: poolDrive(i),
          state: i === 8 ? "ONLINE (errors 0/0/12)" : "ONLINE",
        })),
        remark: "scrub repaired 48K in 14:22:10 with 0 errors on Sun Nov 15",
      },
    ],
    storageControllers: [
      { id: "3b:00.0", name: "Halden 3 host adapter", mode: "host adapter", firmware: "16.00", health: "OK" },
      { id: "00:17.0", name: "onboard SATA", mode: "plain" },
    ],
    ports: [port(1, "02:61:0a:00:16:01", "up", "18:00.0"), port(2, "02:61:0a:00:16:02", "up", "18:00.1")].map(
      (p) => ({ ...p, speedMegabits: 10_000, maxMegabits: 10_000 }),
    ),
    pci: [
      ...[0, 1].map((n) =>
        pci(`18:00.${n}`, "0200", "Ethernet controller", "Silica", "two-port 10G adapter", "f0a1:1572", {
          driver: "s10g",
          iommuGroup: 21 + n,
          place: "slot 2",
        }),
      ),
      pci(
        "3b:00.0",
        "0107",
        "Serial Attached SCSI controller",
        "Halden",
        "Halden 3 host adapter",
        "f0b2:0097",
        { driver: "hsas3", iommuGroup: 40, place: "slot 3" },
      ),
    ],
    sensors: [
      temperature("inlet", 24, 38, 42),
      temperature("processor 1", 55, 86, 96),
      { id: "whole machine", kind: "power", value: 268 },
    ],
    powerSupplies: SUPPLIES(1100, "Lost input"),
  },
  9 * DAY,
  {
    present: true,
    kind: "Ostler remote controller",
    firmware: "4.40",
    address: "10.61.10.216",
    virtualMedia: "not licensed",
  },
  {
    role: "storage",
    place: "rack A, units 8 and 9",
    circuit: "A1",
    keys: R114_KEYS,
    bays: [
      {
        title: "Front",
        face: "front",
        size: "large",
        columns: 4,
        rows: 3,
        first: 0,
        order: "rows",
        prefix: "",
      },
      {
        title: "Rear",
        face: "rear",
        size: "small",
        columns: 2,
        rows: 1,
        first: 0,
        order: "rows",
        prefix: "rear",
      },
    ],
    firmware: [
      {
        part: "system firmware",
        installed: "2.9.0",
        available: "2.11.2",
        decision: "postponed",
        due: day(-6),
        reason: "not during the leak season",
        by: "M. Arkle",
        at: "2026-09-02T10:00:00.000Z",
      },
    ],
    dates: [dated("Scrub of the pool reservoir", day(5), "M. Arkle")],
    expected: {
      from: "delivery note 4502, June 2021",
      model: "R212",
      serial: "OST7K2S01",
      cores: 12,
      memoryBytes: 128 * 2 ** 30,
      memoryModules: 4,
      ports: 2,
      drives: [
        { count: 11, sizeBytes: 12_000_138_625_024, model: "" },
        { count: 1, sizeBytes: 240_057_409_536, model: "" },
      ],
    },
    noise: "audible in the corridor",
  },
  "Bay 7 was replaced in 2025 with a spare drive: 14 TB in a pool of 12 TB drives.",
);

export const wrkTm1 = read(
  {
    chassis: {
      maker: "Ostler",
      model: "R114",
      serial: "OST7K2M21",
      assetTag: "MW-21",
      form: "Rack Mount Chassis",
      rackUnits: 1,
      weightKilograms: 16,
    },
    firmware: {
      mode: "uefi",
      maker: "Ostler",
      version: "2.11.2",
      releaseDate: "05/14/2024",
      secureBoot: true,
      order: ["0001"],
      entries: [
        { id: "0001", label: "Network port 1", active: true, kind: "network", path: "MAC(02610a002101,1)" },
      ],
    },
    processors: {
      model: "Silica Tern 16",
      maker: "Silica",
      architecture: "x86_64",
      level: "x86-64-v3",
      sockets: 1,
      cores: 16,
      threads: 32,
      virtualisation: true,
      iommu: true,
    },
    memory: {
      ...memory(4, 32, 127.4),
      modules: [
        ...memory(3, 32, 0).modules,
        { slot: "DIMM D1", sizeBytes: 16 * 2 ** 30, kind: "DDR4", megatransfers: 2666 },
      ],
      installedBytes: 112 * 2 ** 30,
      recognisedBytes: Math.round(111.4 * 2 ** 30),
    },
    drives: [0, 1].map((n) =>
      drive(`SLW96000${n}4`, "Sallow 960", 960_197_124_096, "nvme", `nvme${n}n1`, {
        maker: "Sallow",
        ...(n === 0 && { bay: "0" }),
        firmware: "3.2",
        health: {
          passed: true,
          hours: 412,
          wearPercent: 1,
          temperatureC: 41,
          mediaErrors: 0,
          sparePercent: 100,
          spareThresholdPercent: 10,
          writtenBytes: 3_100_000_000_000,
          warnings: [],
        },
      }),
    ),
    ports: [1, 2].map((n) => port(n, `02:61:0a:00:21:0${n}`, n === 1 ? "up" : "down", `18:00.${n - 1}`)),
    pci: SIX_PORTS("18:00").slice(0, 2),
    sensors: [
      temperature("inlet", 23, 38, 42),
      temperature("processor 1", 44, 88, 98),
      { id: "whole machine", kind: "power", value: 118 },
    ],
    powerSupplies: SUPPLIES(800),
  },
  2 * DAY,
  {
    present: true,
    kind: "Ostler remote controller",
    firmware: "4.60",
    address: "10.61.10.221",
    virtualMedia: "licensed",
  },
  {
    role: "database",
    place: "rack A, unit 16",
    circuit: "A1",
    keys: R114_KEYS,
    // Its installer is followed on the serial line of its controller.
    parameters: [{ name: "console", value: "ttyS1,115200n8", isSecret: false }],
    bays: R114_BAYS.slice(0, 1),
    expected: {
      from: "delivery note 5120, October 2026",
      model: "R114",
      serial: "OST7K2M21",
      cores: 16,
      memoryBytes: 128 * 2 ** 30,
      memoryModules: 4,
      ports: 2,
      drives: [{ count: 2, sizeBytes: 960_197_124_096, model: "Sallow" }],
    },
  },
  "New machine for the telemetry database. One memory module differs from the order.",
);
