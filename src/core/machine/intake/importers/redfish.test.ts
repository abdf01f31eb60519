import { describe, expect, it } from "vitest";
import { emptyMachine, mergeReadings, readTexts } from "../..";

const at = "2026-11-24T08:00:00.000Z";
const type = (kind: string) => ({ "@odata.type": `#${kind}.v1_5_0.${kind}` });
const S = "/redfish/v1/Systems/1";
const drive = (n: number, more: object = {}) => ({
  "@odata.id": `${S}/Storage/RAID.1/Drives/${n}`,
  ...type("Drive"),
  SerialNumber: `TF-00${n}`,
  Model: "Alder 960",
  CapacityBytes: 960_197_124_096,
  MediaType: "SSD",
  Protocol: "SATA",
  PredictedMediaLifeLeftPercent: 91,
  Identifiers: [{ DurableName: `5002538e0000000${n}` }],
  PhysicalLocation: { PartLocation: { ServiceLabel: `Bay ${n}` } },
  Status: { State: "Enabled", Health: "OK" },
  ...more,
});
const files = {
  system: {
    "@odata.id": S,
    ...type("ComputerSystem"),
    Manufacturer: "Ostler",
    Model: "R114",
    SerialNumber: "OST-9",
    BiosVersion: "2.11.2",
    Boot: {
      ...{ BootSourceOverrideMode: "UEFI", BootSourceOverrideEnabled: "Once", BootNext: "Boot0002" },
      BootOrder: ["Boot0001", "Boot0002"],
    },
    PowerRestorePolicy: "LastState",
    MemorySummary: { TotalSystemMemoryGiB: 64 },
  },
  cpu1: {
    ...type("Processor"),
    ProcessorType: "CPU",
    Model: "Silica Gold",
    TotalCores: 12,
    TotalThreads: 24,
    InstructionSet: "x86-64",
  },
  cpu2: {
    ...type("Processor"),
    ProcessorType: "CPU",
    Model: "Silica Gold",
    TotalCores: 12,
    TotalThreads: 24,
  },
  cpu3: { ...type("Processor"), Status: { State: "Absent" } },
  dimm1: { ...type("Memory"), DeviceLocator: "A1", CapacityMiB: 32_768, MemoryDeviceType: "DDR4" },
  dimm2: { ...type("Memory"), DeviceLocator: "A2", Status: { State: "Absent" } },
  storage: {
    "@odata.id": `${S}/Storage/RAID.1`,
    ...type("Storage"),
    Id: "RAID.1",
    StorageControllers: [
      { Name: "Halden 9", FirmwareVersion: "5.1", SupportedRAIDTypes: ["RAID1", "RAID5"] },
    ],
  },
  drive1: drive(1),
  drive2: drive(2, { FailurePredicted: true, Status: { State: "Enabled", Health: "Critical" } }),
  volume: {
    ...type("Volume"),
    Name: "BOOT",
    RAIDType: "RAID1",
    CapacityBytes: 959_119_884_288,
    Identifiers: [{ DurableName: "600605b00aaa0001" }],
    Status: { State: "Enabled", Health: "Warning" },
    Operations: [{ OperationName: "Rebuild time", PercentageComplete: 38 }],
    Links: {
      Drives: [
        { "@odata.id": `${S}/Storage/RAID.1/Drives/1` },
        { "@odata.id": `${S}/Storage/RAID.1/Drives/2` },
      ],
    },
  },
  nic: {
    "@odata.id": `${S}/EthernetInterfaces/1`,
    ...type("EthernetInterface"),
    PermanentMACAddress: "02:61:0A:00:00:14",
    LinkStatus: "LinkUp",
    SpeedMbps: 1000,
  },
  bmcNic: {
    "@odata.id": "/redfish/v1/Managers/1/EthernetInterfaces/1",
    ...type("EthernetInterface"),
    MACAddress: "02:61:0A:00:00:99",
    IPv4Addresses: [{ Address: "10.61.10.30", SubnetMask: "255.255.255.0" }],
  },
  manager: { ...type("Manager"), ManagerType: "BMC", FirmwareVersion: "1.40" },
  media: { ...type("VirtualMedia"), Actions: { "#VirtualMedia.InsertMedia": {} } },
  bios: { ...type("Bios"), Attributes: { ProcVirtualization: "Enabled", Retries: 3 } },
  power: {
    ...type("Power"),
    PowerControl: [{ Name: "System", PowerConsumedWatts: 182 }],
    PowerSupplies: [{ Name: "PSU 1", PowerCapacityWatts: 800, Status: { Health: "OK" } }],
  },
  thermal: {
    ...type("Thermal"),
    Temperatures: [{ Name: "Inlet", ReadingCelsius: 23, UpperThresholdCritical: 42 }],
    Fans: [{ Name: "Fan 1", Reading: 5400, ReadingUnits: "RPM" }],
  },
  chassis: { ...type("Chassis"), HeightMm: 44.45, WeightKg: 17.2 },
  option1: {
    ...{ ...type("BootOption"), BootOptionReference: "Boot0001", DisplayName: "Cairn" },
    UefiDevicePath: "HD(1,GPT,0a1b2c3d-0000-4000-8000-000000000001)/\\EFI\\BOOT\\BOOTX64.EFI",
  },
  option2: {
    ...{
      ...type("BootOption"),
      BootOptionReference: "Boot0002",
      DisplayName: "LAN 1",
      BootOptionEnabled: false,
    },
    UefiDevicePath: "PciRoot(0x0)/Pci(0x3,0x0)/MAC(02610A000014,1)/IPv4(0.0.0.0)",
  },
  log: { ...type("LogEntry") },
};
const texts = (of: object) =>
  Object.entries(of).map(([name, value]) => ({ name: `${name}.json`, text: JSON.stringify(value) }));

describe("Redfish resources", () => {
  const intake = readTexts(texts(files));
  const { facts } = mergeReadings(emptyMachine(), intake.readings, at).document;

  it("in many files are counted together", () => {
    expect(intake.rejected).toEqual([]);
    expect(intake.readings).toHaveLength(1);
    expect(intake.readings[0]?.reading.ignored).toEqual(["LogEntry"]);
    expect(facts.processors).toMatchObject({ sockets: 2, cores: 24, threads: 48, architecture: "x86_64" });
    expect(facts.memory).toMatchObject({ recognisedBytes: 64 * 2 ** 30, installedBytes: 32 * 2 ** 30 });
    expect(facts.memory?.modules).toHaveLength(2);
  });

  it("place drives in bays and tell their health", () => {
    expect(facts.drives.map((d) => [d.id, d.bay, d.controller, d.health])).toEqual([
      ["TF-001", "1", "RAID.1", { wearPercent: 9 }],
      [
        "TF-002",
        "2",
        "RAID.1",
        { passed: false, wearPercent: 9, warnings: ["the controller reports its health as Critical"] },
      ],
    ]);
    expect(facts.sets[0]).toMatchObject({
      id: "virtual drive BOOT",
      ...{ health: "degraded", progress: { what: "Rebuild time", percent: 38, secondsLeft: null } },
      members: [{ drive: "TF-001" }, { drive: "TF-002", state: "Critical" }],
    });
    expect(facts.storageControllers).toMatchObject([
      { id: "RAID.1", name: "Halden 9", mode: "RAID", firmware: "5.1" },
    ]);
  });

  it("keep the controller's own port apart from those of the machine", () => {
    expect(facts.ports.map((p) => p.mac)).toEqual(["02:61:0a:00:00:14"]);
    expect(facts.controller).toMatchObject({
      present: true,
      address: "10.61.10.30",
      firmware: "1.40",
      virtualMedia: "licensed",
    });
    expect(facts.chassis).toMatchObject({ serial: "OST-9", rackUnits: 1, weightKilograms: 17.2 });
    expect(facts.firmware).toMatchObject({
      mode: "uefi",
      settings: { ProcVirtualization: "Enabled", Retries: "3" },
    });
    expect(facts.sensors.map((s) => `${s.kind} ${s.value}`)).toEqual([
      "power 182",
      "temperature 23",
      "fan 5400",
    ]);
  });

  it("tell boot entries, its order, the one-time choice and what comes after a power loss", () => {
    expect(facts.firmware).toMatchObject({ order: ["0001", "0002"], nextEntry: "0002" });
    expect(facts.firmware?.entries?.map((e) => [e.id, e.label, e.kind, e.active])).toEqual([
      ["0001", "Cairn", "disk", true],
      ["0002", "LAN 1", "network", false],
    ]);
    expect(facts.firmware?.settings).toMatchObject({ PowerRestorePolicy: "LastState", Retries: "3" });
  });

  it("recognise the virtual drive when the system shows it as a disk", () => {
    const lsblk = {
      blockdevices: [
        {
          name: "sda",
          type: "disk",
          size: 959_119_884_288,
          wwn: "0x600605b00aaa0001",
          serial: "00aa",
          model: "VOL",
          subsystems: "block:scsi:pci",
        },
      ],
    };
    const both = readTexts([...texts(files), { name: "lsblk", text: JSON.stringify(lsblk) }]);
    const merged = mergeReadings(emptyMachine(), both.readings, at).document.facts;
    expect(merged.drives.find((d) => d.seenAs === "sda")?.presentedBy).toBe("BOOT");
  });

  it("that are broken are refused alone; the others stand", () => {
    const broken = readTexts([
      ...texts({ system: files.system }),
      { name: "cut.json", text: JSON.stringify(files.drive1).slice(0, 90) },
    ]);
    expect(broken.readings[0]?.reading.facts.chassis?.model).toBe("R114");
    expect(broken.rejected).toMatchObject([{ from: "cut.json", tool: "redfish", problems: [{ line: 1 }] }]);
  });

  it("of a collection of bare links say that the members are wanted", () => {
    const links = {
      "@odata.type": "#DriveCollection.DriveCollection",
      Members: [{ "@odata.id": `${S}/Drives/1` }],
    };
    expect(readTexts(texts({ links })).rejected[0]?.problems[0]?.message).toMatch(
      /collection of links; save its members/,
    );
  });
});
