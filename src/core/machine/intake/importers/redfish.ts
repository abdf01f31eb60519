import { z } from "zod";
import { fail, ok, type Result } from "../../../result";
import { own } from "../../../text";
import type { Drive } from "../../facts/drive";
import { bootOptions, systemBoot } from "./redfish-boot";
import {
  cleanPlace,
  cleanText,
  parseShaped,
  plausibleBytes,
  plural,
  wholeNumber,
  type Importer,
  type Observed,
  type Reading,
} from "./importer";
import { kindOf, resourceSchema, type Resource } from "./redfish-schema";

const flat = (resources: Resource[]): Resource[] =>
  resources.flatMap((r) => [r, ...flat((r.Members ?? []).filter((m) => m["@odata.type"]))]);

const isAbsent = (r: { Status?: Resource["Status"] }): boolean => r.Status?.State === "Absent";
const lastPart = (path: string | undefined): string => path?.split("/").filter(Boolean).at(-1) ?? "";

/** What each kind of resource adds to the facts. */
const READERS: Record<string, (resources: Resource[], all: Resource[]) => Observed> = {
  ComputerSystem: ([system]) => (system ? systemFacts(system) : {}),
  BootOption: bootOptions,
  Processor: (list) => {
    const present = list.filter((p) => !isAbsent(p) && (p.ProcessorType ?? "CPU") === "CPU");
    const sum = (of: (p: Resource) => number | null | undefined): number | null =>
      present.every((p) => typeof of(p) === "number") ? present.reduce((n, p) => n + (of(p) ?? 0), 0) : null;
    if (present.length === 0) return {};
    return {
      processors: {
        model: cleanText(present[0]?.Model),
        maker: cleanText(present[0]?.Manufacturer),
        sockets: present.length,
        cores: sum((p) => p.TotalCores),
        threads: sum((p) => p.TotalThreads),
        maxMegahertz: present[0]?.MaxSpeedMHz ?? null,
        architecture: { "x86-64": "x86_64", "ARM-A64": "aarch64" }[present[0]?.InstructionSet ?? ""] ?? null,
      },
    };
  },
  Memory: (list) => {
    const modules = list.map((m) => ({
      slot: cleanText(m.DeviceLocator ?? m.Name) ?? "slot not named",
      sizeBytes: isAbsent(m) ? 0 : (plausibleBytes((m.CapacityMiB ?? 0) * 2 ** 20) ?? 0),
      kind: cleanText(m.MemoryDeviceType),
      part: cleanText(m.PartNumber),
      megatransfers: m.OperatingSpeedMhz ?? null,
    }));
    return { memory: { installedBytes: modules.reduce((n, m) => n + m.sizeBytes, 0), modules } };
  },
  Storage: (list) => ({
    storageControllers: list.flatMap((s) =>
      (s.StorageControllers ?? []).map((c, i) => ({
        id: `${cleanText(s.Id) ?? lastPart(s["@odata.id"])}${i > 0 ? `.${i}` : ""}`,
        name: cleanText(c.Name ?? c.Model ?? s.Name) ?? "storage controller",
        mode: (c.SupportedRAIDTypes ?? []).length > 0 ? ("RAID" as const) : undefined,
        firmware: cleanText(c.FirmwareVersion),
        health: cleanText(c.Status?.Health ?? s.Status?.Health),
      })),
    ),
  }),
  Drive: (list) => ({ drives: list.filter((d) => !isAbsent(d)).map(toDrive) }),
  Volume: (list, all) => ({ sets: list.map((v) => toSet(v, all)) }),
  EthernetInterface: interfaceFacts,
  Manager: ([manager]) => ({
    controller: {
      present: true,
      kind: cleanText(manager?.Model ?? manager?.ManagerType),
      firmware: cleanText(manager?.FirmwareVersion),
    },
  }),
  VirtualMedia: (list) => {
    const can = list.some((v) => v.Actions?.["#VirtualMedia.InsertMedia"] && v.Status?.State !== "Disabled");
    return can ? { controller: { virtualMedia: "licensed" } } : {};
  },
  Bios: ([bios]) => {
    const settings = Object.entries(bios?.Attributes ?? {}).flatMap(([k, v]) =>
      v === null ? [] : [[k.slice(0, 200), String(v).slice(0, 200)] as const],
    );
    return settings.length > 0 ? { firmware: { settings: Object.fromEntries(settings) } } : {};
  },
  SecureBoot: ([secure]) => ({ firmware: { secureBoot: secure?.SecureBootCurrentBoot === "Enabled" } }),
  Chassis: ([chassis]) => ({
    chassis: {
      // A rack unit is 44.45 mm (IEC 60297).
      rackUnits: chassis?.HeightMm ? Math.max(1, Math.round(chassis.HeightMm / 44.45)) : null,
      weightKilograms: chassis?.WeightKg || null,
    },
  }),
  Power: ([power]) => ({
    powerSupplies: (power?.PowerSupplies ?? [])
      .filter((p) => !isAbsent(p))
      .map((p, i) => ({
        id: cleanText(p.Name ?? p.MemberId) ?? `supply ${i}`,
        model: cleanText(p.Model),
        ratedWatts: p.PowerCapacityWatts ?? null,
        state: cleanText(p.Status?.Health ?? p.Status?.State) ?? "not told",
      })),
    sensors: (power?.PowerControl ?? []).flatMap((c) =>
      typeof c.PowerConsumedWatts === "number"
        ? [
            {
              id: `controller ${cleanText(c.Name) ?? "power"}`,
              kind: "power" as const,
              value: c.PowerConsumedWatts,
            },
          ]
        : [],
    ),
  }),
  Thermal: ([thermal]) => ({
    sensors: [
      ...(thermal?.Temperatures ?? []).flatMap((t) =>
        typeof t.ReadingCelsius === "number"
          ? [
              {
                id: `controller ${cleanText(t.Name) ?? "temperature"}`,
                kind: "temperature" as const,
                value: t.ReadingCelsius,
                max: t.UpperThresholdNonCritical ?? null,
                critical: t.UpperThresholdCritical ?? null,
              },
            ]
          : [],
      ),
      ...(thermal?.Fans ?? []).flatMap((f) =>
        typeof f.Reading === "number" && f.ReadingUnits === "RPM"
          ? [
              {
                id: `controller ${cleanText(f.Name ?? f.FanName) ?? "fan"}`,
                kind: "fan" as const,
                value: f.Reading,
              },
            ]
          : [],
      ),
    ],
  }),
};

function systemFacts(system: Resource): Observed {
  const gib = system.MemorySummary?.TotalSystemMemoryGiB;
  const { Count, Model, CoreCount, LogicalProcessorCount } = system.ProcessorSummary ?? {};
  return {
    chassis: {
      maker: cleanText(system.Manufacturer),
      model: cleanText(system.Model),
      serial: cleanText(system.SerialNumber),
      uuid: cleanText(system.UUID),
      assetTag: cleanText(system.AssetTag),
    },
    firmware: {
      version: cleanText(system.BiosVersion),
      ...systemBoot(system),
    },
    ...(gib && { memory: { recognisedBytes: plausibleBytes(Math.round(gib * 2 ** 30)) } }),
    processors: {
      model: cleanText(Model),
      sockets: wholeNumber(Count),
      cores: wholeNumber(CoreCount),
      threads: wholeNumber(LogicalProcessorCount),
    },
  };
}

const wwnOf = (r: Resource): string | null =>
  cleanText(r.Identifiers?.map((i) => i.DurableName).find((n) => n && n.length >= 8));

function toDrive(d: Resource): Partial<Drive> {
  const place = d.PhysicalLocation?.PartLocation;
  const ordinal = place?.LocationOrdinalValue;
  const left = d.PredictedMediaLifeLeftPercent;
  const media =
    d.Protocol === "NVMe"
      ? ("nvme" as const)
      : d.MediaType === "HDD"
        ? ("spinning" as const)
        : d.MediaType === "SSD"
          ? ("flash" as const)
          : undefined;
  const health = {
    ...(typeof d.FailurePredicted === "boolean" && { passed: !d.FailurePredicted }),
    ...(typeof left === "number" && { wearPercent: Math.max(0, 100 - left) }),
    ...(d.Status?.Health &&
      d.Status.Health !== "OK" && { warnings: [`the controller calls its health ${d.Status.Health}`] }),
  };
  return {
    serial: cleanText(d.SerialNumber),
    wwn: wwnOf(d),
    model: cleanText(d.Model),
    maker: cleanText(d.Manufacturer),
    firmware: cleanText(d.Revision),
    sizeBytes: plausibleBytes(d.CapacityBytes) ?? undefined,
    logicalSectorBytes: wholeNumber(d.BlockSizeBytes),
    media,
    rotationRpm: wholeNumber(d.RotationSpeedRPM) || null,
    bay:
      cleanPlace(place?.ServiceLabel)?.replace(/^bay\s+/i, "") ??
      (typeof ordinal === "number" ? String(ordinal) : null),
    controller: /\/Storage\/([^/]+)\//.exec(d["@odata.id"] ?? "")?.[1] ?? null,
    ...(Object.keys(health).length > 0 && { health }),
  };
}

/** What is under way on a volume; a controller tells no time. */
function progressOf({ Operations }: Resource): NonNullable<Observed["sets"]>[number]["progress"] {
  const under = (Operations ?? []).find((o) => typeof o.PercentageComplete === "number");
  return under
    ? {
        what: cleanText(under.OperationName) ?? "an operation",
        percent: under.PercentageComplete!,
        secondsLeft: null,
      }
    : null;
}

const HEALTH = { OK: "good", Warning: "degraded", Critical: "failed" } as const;

function toSet(v: Resource, all: Resource[]): NonNullable<Observed["sets"]>[number] {
  const name = cleanText(v.Name) ?? cleanText(v.Id) ?? "volume";
  const health = own(HEALTH, v.Status?.Health ?? "") ?? "unknown";
  return {
    id: `virtual drive ${name}`,
    kind: "virtual drive",
    name,
    level: cleanText(v.RAIDType),
    state: cleanText(v.Status?.State ?? v.Status?.Health) ?? "not told",
    health,
    sizeBytes: plausibleBytes(v.CapacityBytes),
    wwn: wwnOf(v),
    progress: progressOf(v),
    members: (v.Links?.Drives ?? []).map((link) => {
      const drive = all.find((r) => r["@odata.id"] === link["@odata.id"]);
      return {
        name: lastPart(link["@odata.id"]),
        drive: cleanText(drive?.SerialNumber),
        role: "member" as const,
        group: null,
        state: cleanText(drive?.Status?.Health) ?? "listed",
      };
    }),
  };
}

/** Dotted mask to prefix length; a mask with holes is none. */
function prefixOf(mask: string | null | undefined): number {
  const bits = (mask ?? "")
    .split(".")
    .map((n) => Number(n).toString(2).padStart(8, "0"))
    .join("");
  return /^1*0*$/.test(bits) && bits.length === 32 ? bits.replace(/0/g, "").length : 32;
}

function interfaceFacts(list: Resource[]): Observed {
  const ofManager = (r: Resource): boolean => /\/Managers\//.test(r["@odata.id"] ?? "");
  const own = list.filter((r) => !ofManager(r) && (r.PermanentMACAddress || r.MACAddress));
  const address = list
    .filter(ofManager)
    .flatMap((r) => r.IPv4Addresses ?? [])
    .find((a) => a.Address)?.Address;
  return {
    ports: own.map((r) => ({
      mac: (r.PermanentMACAddress ?? r.MACAddress ?? "").toLowerCase(),
      ...(r.LinkStatus && { link: r.LinkStatus === "LinkUp" ? ("up" as const) : ("down" as const) }),
      speedMegabits: r.SpeedMbps || null,
      otherNames: cleanText(r.Id) ? [cleanText(r.Id) ?? ""] : undefined,
      addresses: (r.IPv4Addresses ?? []).some((a) => a.Address)
        ? (r.IPv4Addresses ?? []).flatMap((a) =>
            a.Address
              ? [
                  {
                    family: "ipv4" as const,
                    address: a.Address,
                    prefixLength: prefixOf(a.SubnetMask),
                    scope: "global",
                    dynamic: a.AddressOrigin === "DHCP",
                  },
                ]
              : [],
          )
        : undefined,
    })),
    ...(cleanText(address) && { controller: { present: true, address: cleanText(address) } }),
  };
}

/** Adds what one kind of resource says to what others have said. */
function join(into: Observed, more: Observed): Observed {
  const bag = into as Record<string, unknown>;
  for (const [group, value] of Object.entries(more)) {
    if (Array.isArray(value)) bag[group] = [...((bag[group] as unknown[]) ?? []), ...value];
    else if (value) {
      const known = Object.entries(value as object).filter(([, v]) => v !== null && v !== undefined);
      const old = (bag[group] ?? {}) as Record<string, unknown>;
      // Settings come from more than one kind of resource; everything else of a part is told by one.
      const both = (key: string, v: unknown) =>
        key === "settings" ? { ...(old[key] as object), ...(v as object) } : v;
      bag[group] = { ...old, ...Object.fromEntries(known.map(([key, v]) => [key, both(key, v)])) };
    }
  }
  return into;
}

/** Redfish resources as JSON: one, a list of them, or collections with expanded members. */
export const redfish: Importer = {
  tool: "redfish",
  command: "Redfish resources as JSON files",
  recognises: (text) =>
    /^\s*[[{]/.test(text) && /"@odata\.(id|type|context)"\s*:/.test(text.slice(0, 20_000)),
  // Many small files make one machine: counts and sums only come out right over all of them.
  join: (texts) => `[${texts.map((t) => t.trim().replace(/^\[|\]$/g, "")).join(",")}]`,
  parse(text): Result<Reading> {
    const parsed = parseShaped(text, z.union([z.array(resourceSchema), resourceSchema]), "Redfish");
    if (!parsed.ok) return parsed;
    const all = flat([parsed.value].flat());
    const kinds = new Map<string, Resource[]>();
    for (const r of all) kinds.set(kindOf(r), [...(kinds.get(kindOf(r)) ?? []), r]);
    const known = [...kinds.keys()].filter((k) => own(READERS, k));
    if (known.length === 0)
      return fail({
        message: `no resource of a kind that Derrick reads (${Object.keys(READERS).join(", ")}); this is ${[...kinds.keys()].filter(Boolean).join(", ") || "not typed"}${all.some((r) => r.Members?.length) ? ": a collection of links; save its members too" : ""}`,
      });
    const facts = Object.keys(READERS)
      .filter((k) => kinds.has(k))
      .reduce<Observed>((sum, k) => join(sum, own(READERS, k)?.(kinds.get(k) ?? [], all) ?? {}), {});
    return ok({
      facts,
      understood: known
        .map((k) => plural(kinds.get(k)?.length ?? 0, k, k === "Memory" ? "memory modules" : `${k}s`))
        .join(", "),
      ignored: [...kinds.keys()].filter((k) => k !== "" && !own(READERS, k) && !/Collection$/.test(k)),
    });
  },
};
