// The parts that the demo's machines are made of: drives, ports, memory, and documents that look as if a collector
// bundle and a controller had filled them.
import {
  machineDocumentSchema,
  type Drive,
  type Facts,
  type MachineDocument,
  type Typed,
} from "@/core/machine";
import { dayIn } from "@/core/units";

export const at = (minutesAgo: number): string =>
  new Date(Date.parse("2026-11-24T14:00:00Z") - minutesAgo * 60_000).toISOString();
export const DAY = 1440;
export const NOW = at(0);
export const ARKLE = "M. Arkle";
export const PELL = "J. Pell";
/** The day so many days from the demo's now; negative for days gone by. */
export const day = (fromNow: number): string => dayIn(at(-fromNow * DAY), "UTC");

type Part = {
  part: string;
  sizeBytes: number;
  kind: string;
  label?: string;
  mountedAt?: string[];
  partUuid?: string;
};

export const drive = (
  serial: string,
  model: string,
  sizeBytes: number,
  media: Drive["media"],
  seenAs: string,
  more: Partial<Omit<Drive, "contents">> & { contents?: Part[] } = {},
) => ({
  id: serial,
  serial,
  wwn: `naa.5000c5${[...serial]
    .reduce((n, c) => (n * 33 + c.charCodeAt(0)) % 2 ** 40, 7)
    .toString(16)
    .padStart(10, "0")}`,
  model,
  sizeBytes,
  media,
  seenAs,
  logicalSectorBytes: 512,
  physicalSectorBytes: media === "spinning" ? 4096 : 512,
  // lsblk reads every drive that it sees; members behind a controller it does not see.
  ...(seenAs !== "?" && { contents: [] as Part[] }),
  ...more,
});

export const port = (n: number, mac: string, link: "up" | "down", pci: string, seenAs = `eno${n}`) => ({
  mac,
  seenAs,
  kind: "ethernet" as const,
  link,
  pci,
  speedMegabits: link === "up" ? 1000 : null,
  maxMegabits: 1000,
  mtu: 1500,
});

export const pci = (
  slot: string,
  classId: string,
  className: string,
  maker: string,
  device: string,
  ids: string,
  more: Partial<Facts["pci"][number]> = {},
) => ({ slot, classId, className, maker, device, ids, ...more });

export const memory = (modules: number, gib: number, seen: number, kind = "DDR4", megatransfers = 3200) => ({
  installedBytes: modules * gib * 2 ** 30,
  recognisedBytes: Math.round(seen * 2 ** 30),
  errorCorrection: kind === "DDR3" ? "None" : "Multi-bit ECC",
  modules: Array.from({ length: modules }, (_, i) => ({
    slot: `DIMM ${"ABCDEFGH"[i % 8]}${1 + Math.floor(i / 8)}`,
    sizeBytes: gib * 2 ** 30,
    kind,
    megatransfers,
  })),
});

export const temperature = (
  id: string,
  value: number,
  max: number | null,
  critical: number | null = null,
) => ({
  id,
  kind: "temperature" as const,
  value,
  max,
  critical,
});

const TOOLS: Record<string, string> = {
  chassis: "dmidecode",
  firmware: "efibootmgr",
  processors: "lscpu",
  memory: "dmidecode",
  system: "os-release",
  drives: "lsblk",
  ports: "ip address",
  pci: "lspci -vmm",
  sensors: "sensors",
  sets: "redfish",
  storageControllers: "redfish",
  powerSupplies: "redfish",
};
const BRIEF = new Set(["pci", "sensors", "sets", "storageControllers", "powerSupplies"]);

/** A machine's document whose facts come from one collector bundle, and, for what only it knows, the controller. */
export function read(
  facts: object,
  minutesAgo: number,
  controller: Partial<Facts>["controller"],
  typed: Partial<Typed> = {},
  notes = "",
): MachineDocument {
  const source = (tool: string) => ({
    tool,
    from: tool === "redfish" ? "controller-files.json" : "bundle.txt",
    at: at(minutesAgo),
  });
  const sources: Record<string, object> = {};
  for (const [group, value] of Object.entries(facts) as [string, object][]) {
    const tool = TOOLS[group] ?? "settings";
    if (!Array.isArray(value))
      for (const key of Object.keys(value)) sources[`${group}.${key}`] = source(tool);
    else
      for (const item of value as Record<string, string>[]) {
        const path = `${group}.${item.id ?? item.mac ?? item.slot ?? ""}`;
        if (BRIEF.has(group)) sources[path] = source(tool);
        else
          for (const key of Object.keys(item))
            sources[`${path}.${key}`] = source(key === "health" ? "smartctl" : tool);
      }
  }
  for (const key of Object.keys(controller ?? {}))
    sources[`controller.${key}`] = { tool: "typed", from: "M. Arkle", at: at(minutesAgo - 30) };
  return machineDocumentSchema.parse({
    schemaVersion: 2,
    facts: { ...facts, controller },
    sources,
    typed,
    notes,
  });
}

/** What an installed system says of itself, at a site with these networks. */
export const systemOf = (
  os: { osId: string; osName: string; osVersion: string },
  hostName: string,
  net: { interface: string; address: string; prefixLength: number; gateway: string },
  rootBytes: { size: number; free: number },
) => ({
  ...os,
  hostName,
  gateway: net.gateway,
  nameServers: [net.gateway],
  addresses: [
    { interface: net.interface, address: net.address, prefixLength: net.prefixLength, dynamic: false },
  ],
  timeZone: "Europe/London",
  locale: "en_GB.UTF-8",
  keyboard: "gb",
  clockFollows: true,
  rootKind: "ext4",
  rootSizeBytes: rootBytes.size,
  rootFreeBytes: rootBytes.free,
});

export const dated = (what: string, due: string, by: string) => ({
  id: `t-${what.replace(/\W+/g, "-")}`,
  what,
  due,
  doneOn: null,
  by,
});

/** GUID of the first partition of a made-up drive, told by two digits. */
export const firstPartition = (digits: string | number): string =>
  `4d5700${String(digits).padStart(2, "0")}-0000-4000-8000-000000000001`;
