import { z } from "zod";
import { driveSchema, optionalText, text } from "./drive";

export const addressSchema = z.object({
  family: z.enum(["ipv4", "ipv6"]),
  address: text,
  prefixLength: z.number().int().min(0).max(128),
  scope: text,
  dynamic: z.boolean().default(false),
});

export const listeningSchema = z.object({
  protocol: z.enum(["tcp", "udp"]),
  address: text,
  port: z.number().int(),
});
export type Listening = z.infer<typeof listeningSchema>;

export const portSchema = z.object({
  mac: text,
  seenAs: text,
  otherNames: z.array(text).default([]),
  kind: z.enum(["ethernet", "wireless"]),
  link: z.enum(["up", "down", "unknown"]),
  speedMegabits: z.number().nullable().default(null),
  /** What the port could do, whatever it is plugged into. */
  maxMegabits: z.number().nullable().default(null),
  pci: optionalText,
  driver: optionalText,
  mtu: z.number().int().nullable().default(null),
  /** The bridge or bond that it belongs to; its address stands there then. */
  memberOf: optionalText,
  addresses: z.array(addressSchema).default([]),
});

export const bootEntrySchema = z.object({
  id: text,
  label: text,
  active: z.boolean(),
  kind: z.enum(["disk", "optical", "network", "firmware", "other"]),
  path: text,
});

export const pciDeviceSchema = z.object({
  slot: text,
  className: text,
  classId: text,
  maker: text,
  device: text,
  ids: text,
  subsystem: optionalText,
  driver: optionalText,
  /** Number of its IOMMU group; devices of one group can only be given away together. */
  iommuGroup: z.number().int().nullable().default(null),
  /** Slot or onboard name that the firmware gives it, such as "Slot 3" or "LAN 1". */
  place: optionalText,
});

/** An array, pool or virtual drive over several drives, as its own tool reports it. */
export const setSchema = z.object({
  /** "pool tank", "array md0", "virtual drive 0". */
  id: text,
  kind: z.enum(["array", "pool", "virtual drive"]),
  name: text,
  level: optionalText,
  /** In the words of the tool. */
  state: text,
  health: z.enum(["good", "degraded", "failed", "unknown"]),
  sizeBytes: z.number().int().nonnegative().nullable().default(null),
  wwn: optionalText,
  members: z
    .array(
      z.object({
        name: text,
        /** The drive of this machine that the name meant when it was read. */
        drive: optionalText,
        /** Members keep the data; a log, a cache and special devices stand beside them. */
        role: z.enum(["member", "spare", "log", "cache", "special"]).default("member"),
        /** Of a pool of several vdevs: which of them it belongs to, from 0 on. Null: not told. */
        group: z.number().int().nonnegative().nullable().default(null),
        state: text,
      }),
    )
    .default([]),
  /** What is under way on it: resync, resilver, initialisation. */
  progress: z
    .object({ what: text, percent: z.number(), secondsLeft: z.number().nullable() })
    .nullable()
    .default(null),
  remark: optionalText,
});

export const CONTROLLER_MODES = [
  "RAID",
  "host adapter",
  "pass-through",
  "boot module",
  "plain",
  "unknown",
] as const;

export const storageControllerSchema = z.object({
  /** PCI place, or the controller's own id. */
  id: text,
  name: text,
  mode: z.enum(CONTROLLER_MODES).default("unknown"),
  firmware: optionalText,
  driver: optionalText,
  health: optionalText,
});

export const sensorSchema = z.object({
  /** Chip and label, such as "coretemp-isa-0000 Package id 0". */
  id: text,
  kind: z.enum(["temperature", "fan", "voltage", "power", "current"]),
  value: z.number(),
  max: z.number().nullable().default(null),
  critical: z.number().nullable().default(null),
  min: z.number().nullable().default(null),
});

export const powerSupplySchema = z.object({
  id: text,
  model: optionalText,
  ratedWatts: z.number().nullable().default(null),
  state: text,
});

/** Everything known of one machine. A part that nothing was said about is absent; nothing is ever guessed into it. */
export const factsSchema = z.object({
  chassis: z
    .object({
      maker: optionalText,
      model: optionalText,
      serial: optionalText,
      uuid: optionalText,
      assetTag: optionalText,
      form: optionalText,
      rackUnits: z.number().nullable().default(null),
      weightKilograms: z.number().positive().nullable().default(null),
    })
    .partial()
    .optional(),
  firmware: z
    .object({
      mode: z.enum(["uefi", "legacy"]),
      maker: optionalText,
      version: optionalText,
      releaseDate: optionalText,
      secureBoot: z.boolean().nullable(),
      /** Settings as the firmware itself reports them. */
      settings: z.record(z.string(), z.string()),
      currentEntry: optionalText,
      nextEntry: optionalText,
      order: z.array(text),
      entries: z.array(bootEntrySchema),
    })
    .partial()
    .optional(),
  processors: z
    .object({
      model: optionalText,
      maker: optionalText,
      architecture: optionalText,
      /** "x86-64-v3" and the like, from the flags. */
      level: optionalText,
      maxMegahertz: z.number().nullable(),
      sockets: z.number().int().nullable(),
      cores: z.number().int().nullable(),
      threads: z.number().int().nullable(),
      virtualisation: z.boolean().nullable(),
      /** True when the running system had IOMMU groups; false when it looked and found none. */
      iommu: z.boolean().nullable(),
    })
    .partial()
    .optional(),
  memory: z
    .object({
      recognisedBytes: z.number().nullable(),
      installedBytes: z.number().nullable(),
      errorCorrection: optionalText,
      modules: z.array(
        z.object({
          slot: text,
          sizeBytes: z.number().nonnegative(),
          kind: optionalText,
          part: optionalText,
          megatransfers: z.number().nullable().default(null),
        }),
      ),
    })
    .partial()
    .optional(),
  controller: z
    .object({
      present: z.boolean(),
      kind: optionalText,
      firmware: optionalText,
      address: optionalText,
      virtualMedia: z.enum(["licensed", "not licensed", "unknown"]),
      /** Rate at which virtual media was really read, in bytes per second. */
      mediaBytesPerSecond: z.number().positive().nullable(),
      /** Where its log-in is kept, in words; never a secret. */
      loginKept: optionalText,
    })
    .partial()
    .optional(),
  /** The operating system that was running when the facts were read. */
  system: z
    .object({
      osId: optionalText,
      osName: optionalText,
      osVersion: optionalText,
      kernel: optionalText,
      hostName: optionalText,
      timeZone: optionalText,
      locale: optionalText,
      keyboard: optionalText,
      gateway: optionalText,
      /** What "/" is mounted from, such as "rpool/ROOT/default", and the kind of its file system. */
      rootSource: optionalText,
      rootKind: optionalText,
      rootSizeBytes: z.number().nonnegative().nullable(),
      rootFreeBytes: z.number().nonnegative().nullable(),
      /** Whether the system says that its clock follows a reference. */
      clockFollows: z.boolean().nullable(),
      nameServers: z.array(text),
      /** Global addresses of all interfaces, software ones too. */
      addresses: z.array(
        z.object({ interface: text, address: text, prefixLength: z.number().int(), dynamic: z.boolean() }),
      ),
      /** Ports that something listens on, with the address on which it does; "*" for all. */
      listening: z.array(listeningSchema),
    })
    .partial()
    .optional(),
  drives: z.array(driveSchema).default([]),
  ports: z.array(portSchema).default([]),
  pci: z.array(pciDeviceSchema).default([]),
  usb: z.array(z.object({ ids: text, name: text })).default([]),
  sets: z.array(setSchema).default([]),
  storageControllers: z.array(storageControllerSchema).default([]),
  sensors: z.array(sensorSchema).default([]),
  powerSupplies: z.array(powerSupplySchema).default([]),
});

export type Facts = z.infer<typeof factsSchema>;
export type Port = z.infer<typeof portSchema>;
export type BootEntry = z.infer<typeof bootEntrySchema>;
export type PciDevice = z.infer<typeof pciDeviceSchema>;
export type DriveSet = z.infer<typeof setSchema>;
export type StorageController = z.infer<typeof storageControllerSchema>;
export type Sensor = z.infer<typeof sensorSchema>;

export const noFacts = (): Facts => factsSchema.parse({});
