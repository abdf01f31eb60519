import { z } from "zod";

const word = z.string().nullish();
const number = z.number().nullish();
const link = z.object({ "@odata.id": z.string() });
const status = z.object({ State: word, Health: word }).nullish();

/**
 * The properties that are read of Redfish resources (DMTF DSP0266 and DSP0268). One loose shape for all of them: a
 * resource names its kind in "@odata.type", and every property may be absent in some version.
 */
export const resourceSchema = z.object({
  "@odata.id": z.string().optional(),
  "@odata.type": z.string().optional(),
  Id: word,
  Name: word,
  Manufacturer: word,
  Model: word,
  SerialNumber: word,
  PartNumber: word,
  UUID: word,
  AssetTag: word,
  Status: status,
  // ComputerSystem
  BiosVersion: word,
  HostName: word,
  ProcessorSummary: z
    .object({ Count: number, Model: word, CoreCount: number, LogicalProcessorCount: number })
    .nullish(),
  MemorySummary: z.object({ TotalSystemMemoryGiB: number }).nullish(),
  Boot: z
    .object({
      BootSourceOverrideMode: word,
      BootSourceOverrideEnabled: word,
      BootOrder: z.array(z.string()).nullish(),
      BootNext: word,
    })
    .nullish(),
  PowerRestorePolicy: word,
  // BootOption
  BootOptionReference: word,
  DisplayName: word,
  UefiDevicePath: word,
  BootOptionEnabled: z.boolean().nullish(),
  // Processor
  TotalCores: number,
  TotalThreads: number,
  MaxSpeedMHz: number,
  InstructionSet: word,
  ProcessorType: word,
  // Memory
  DeviceLocator: word,
  CapacityMiB: number,
  MemoryDeviceType: word,
  OperatingSpeedMhz: number,
  // Storage, Drive, Volume
  StorageControllers: z
    .array(
      z.object({
        Name: word,
        Model: word,
        FirmwareVersion: word,
        SupportedRAIDTypes: z.array(z.string()).nullish(),
        Status: status,
      }),
    )
    .nullish(),
  CapacityBytes: number,
  BlockSizeBytes: number,
  MediaType: word,
  Protocol: word,
  RotationSpeedRPM: number,
  Revision: word,
  FailurePredicted: z.boolean().nullish(),
  PredictedMediaLifeLeftPercent: number,
  Identifiers: z.array(z.object({ DurableName: word })).nullish(),
  PhysicalLocation: z
    .object({ PartLocation: z.object({ ServiceLabel: word, LocationOrdinalValue: number }).nullish() })
    .nullish(),
  RAIDType: word,
  Operations: z.array(z.object({ OperationName: word, PercentageComplete: number })).nullish(),
  Links: z.object({ Drives: z.array(link).nullish() }).nullish(),
  // EthernetInterface
  MACAddress: word,
  PermanentMACAddress: word,
  SpeedMbps: number,
  LinkStatus: word,
  IPv4Addresses: z.array(z.object({ Address: word, SubnetMask: word, AddressOrigin: word })).nullish(),
  // Manager, VirtualMedia, Bios, SecureBoot
  FirmwareVersion: word,
  ManagerType: word,
  Actions: z.record(z.string(), z.unknown()).nullish(),
  Attributes: z.record(z.string(), z.union([z.string(), z.number(), z.boolean(), z.null()])).nullish(),
  SecureBootCurrentBoot: word,
  // Chassis, Power, Thermal
  HeightMm: number,
  WeightKg: number,
  PowerSupplies: z
    .array(z.object({ MemberId: word, Name: word, Model: word, PowerCapacityWatts: number, Status: status }))
    .nullish(),
  PowerControl: z.array(z.object({ Name: word, PowerConsumedWatts: number })).nullish(),
  Temperatures: z
    .array(
      z.object({
        Name: word,
        ReadingCelsius: number,
        UpperThresholdNonCritical: number,
        UpperThresholdCritical: number,
      }),
    )
    .nullish(),
  Fans: z.array(z.object({ Name: word, FanName: word, Reading: number, ReadingUnits: word })).nullish(),
  // Collections whose members were expanded
  get Members() {
    return z.array(resourceSchema).nullish();
  },
});

export type Resource = z.infer<typeof resourceSchema>;

/** "#Drive.v1_14_0.Drive" is a "Drive". */
export const kindOf = (resource: Resource): string =>
  /^#?([A-Za-z]+)\./.exec(resource["@odata.type"] ?? "")?.[1] ?? "";

/** The last part of a resource's own path, which names it among its like. */
export const lastPart = (path: string | undefined): string => path?.split("/").filter(Boolean).at(-1) ?? "";
