import { z } from "zod";
import { fail, ok, type Result } from "../../../result";
import { isBag, valueAt } from "../../../document";
import { own } from "../../../text";
import { bootOptions, systemBoot } from "./redfish-boot";
import { toDrive, toSet } from "./redfish-drives";
import { interfaceFacts } from "./redfish-ports";
import {
  cleanText,
  parseShaped,
  plausibleBytes,
  plural,
  wholeNumber,
  type Importer,
  type Observed,
  type Reading,
} from "./importer";
import { kindOf, lastPart, resourceSchema, type Resource } from "./redfish-schema";

const flat = (resources: Resource[]): Resource[] =>
  resources.flatMap((r) => [r, ...flat((r.Members ?? []).filter((m) => m["@odata.type"]))]);

const isAbsent = (r: { Status?: Resource["Status"] }): boolean => r.Status?.State === "Absent";

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
      slot: cleanText(m.DeviceLocator ?? m.Name) ?? "slot not reported",
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
        state: cleanText(p.Status?.Health ?? p.Status?.State) ?? "not reported",
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

/** Adds what one kind of resource says to what others have said. */
function join(into: Observed, more: Observed): Observed {
  const both = Object.entries(more).flatMap(([group, value]): [string, unknown][] => {
    const old = valueAt(into, group);
    if (Array.isArray(value)) return [[group, [...(Array.isArray(old) ? old : []), ...value]]];
    return value ? [[group, partsJoined(old, value)]] : [];
  });
  return { ...into, ...Object.fromEntries(both) };
}

/** Settings come from more than one kind of resource; everything else of a part is told by one. */
function partsJoined(old: unknown, value: object): object {
  const known = Object.entries(value).filter(([, v]) => v !== null && v !== undefined);
  const all = (key: string, v: unknown): unknown => {
    const stands = valueAt(old, key);
    return key === "settings" && isBag(stands) && isBag(v) ? { ...stands, ...v } : v;
  };
  return { ...(isBag(old) ? old : {}), ...Object.fromEntries(known.map(([key, v]) => [key, all(key, v)])) };
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
        message: `no supported resource (${Object.keys(READERS).join(", ")}); this is ${[...kinds.keys()].filter(Boolean).join(", ") || "untyped"}${all.some((r) => r.Members?.length) ? ": a collection of links; save its members too" : ""}`,
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
