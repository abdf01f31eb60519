import { shown } from "../../text";
import { formatFixed, formatBinaryBytes, formatBytes, formatDecimalBytes } from "../../units";
import type { Drive } from "./drive";
import type { Facts, Port } from "./facts";

/** What a drive of each kind is called where its model is not known, and beside it. */
export const MEDIA_NAMES: Readonly<Record<Drive["media"], string>> = {
  nvme: "NVMe SSD",
  flash: "SSD",
  spinning: "HDD",
  usb: "USB drive",
  card: "flash card",
  virtual: "virtual drive",
  unknown: "drive of unknown type",
};

/** The last characters of a serial that a person compares with a console: six, or all when it is shorter. */
export const serialTail = (drive: Pick<Drive, "serial" | "wwn">): string =>
  (drive.serial ?? drive.wwn ?? "").slice(-6);

const modelWords = (drive: Drive): string =>
  `${drive.bay ? `${bayWords(drive.bay)}, ` : ""}${drive.model ?? MEDIA_NAMES[drive.media]}`;

/** Bay, model, serial tail and size: how a drive is always named. Never by its letter. */
export function driveName(drive: Drive): string {
  const tail = serialTail(drive);
  return `${modelWords(drive)}${tail ? ` …${tail}` : " (no serial number)"}, ${formatBytes(drive.sizeBytes)}`;
}

/** Bay, model and size without a character of the serial: how a drive is named where a person is asked for its serial. */
export const driveLook = (drive: Drive): string => `${modelWords(drive)}, ${formatBytes(drive.sizeBytes)}`;

/** "bay 7", but "boot module" as it is called. */
export const bayWords = (bay: string): string => (/^\d/.test(bay) ? `bay ${bay}` : bay);

/** What stands on a drive, in words; "nothing found" is what was seen, not a promise, and "not read" is neither. */
export function contentWords(drive: Drive): string {
  if (drive.contents === null)
    return drive.memberOf.length > 0
      ? `not collected; member of ${drive.memberOf.join(", ")}`
      : "not collected";
  if (drive.contents.length === 0)
    return drive.table ? `an empty ${drive.table} partition table` : "nothing found";
  const parts = drive.contents.map((c) => {
    const label = c.label ? ` "${c.label}"` : "";
    const mounted = c.mountedAt.length > 0 ? ` at ${c.mountedAt.join(", ")}` : "";
    return `${c.kind}${label}${mounted}`;
  });
  const members = drive.memberOf.length > 0 ? `; member of ${drive.memberOf.join(", ")}` : "";
  return parts.join(", ") + members;
}

/** How a volume of a storage network is reached; null for a drive of the machine. */
export const sanWords = ({ san, sanPaths }: Drive): string | null =>
  san && `over ${san}, by ${sanPaths ?? 1} ${(sanPaths ?? 1) === 1 ? "path" : "paths"}`;

type EfiFile = NonNullable<Drive["efiVolumes"]>[number]["files"][number];

const fileWords = ({ path, arch, isSigned }: EfiFile): string =>
  arch === null
    ? `${path} (not a program)`
    : `${path} (${arch === "other" ? "another processor architecture" : arch}, ${isSigned ? "signed" : "not signed"})`;

function sectorWords({ signature, code }: NonNullable<Drive["firstSector"]>): string {
  if (!signature) return "the first sector does not end with 55 AA";
  return `the first sector ends with 55 AA and has ${code ? "boot code" : "no boot code"}`;
}

/** What a drive can be started from, as far as somebody has looked; empty where nobody has. */
export function startWords({ firstSector, efiVolumes }: Drive): string {
  const files = (efiVolumes ?? []).flatMap((v) => v.files.map(fileWords));
  return [
    ...(firstSector ? [sectorWords(firstSector)] : []),
    ...(efiVolumes ? [files.join(", ") || "no EFI program on its FAT volumes"] : []),
  ].join("; ");
}

/** What an earlier Derrick wrote of the contents of a drive, in the words of today. */
export const contentsToday = (words: string): string =>
  words
    .replace(/^not read(?=;|$)/, "not collected")
    .replace(/^an empty (\S+) table$/, "an empty $1 partition table");

/** What stands on a drive whatever is mounted at the moment: what two readings of it can be compared by. */
export const standingWords = (drive: Drive): string =>
  contentWords({ ...drive, contents: drive.contents?.map((c) => ({ ...c, mountedAt: [] })) ?? null });

export const holdsData = (drive: Drive): boolean =>
  (drive.contents ?? []).length > 0 || drive.memberOf.length > 0;

/** Nobody has looked at what stands on it: neither full nor empty may be said. */
export const isUnread = (drive: Drive): boolean => drive.contents === null && drive.memberOf.length === 0;

/** Drives that the last complete import saw. */
export const presentDrives = (facts: Facts): Drive[] => facts.drives.filter((d) => d.missingSince === null);

/**
 * Drives that an installer can see: members of a set that a controller shows as one drive stand behind it and are not
 * on any list.
 */
export const visibleDrives = (facts: Facts): Drive[] =>
  presentDrives(facts).filter(
    (d) => !d.memberOf.some((m) => m.startsWith("virtual drive ")) || d.presentedBy !== null,
  );

/**
 * Whether the system that was running saw a drive: null where none was read, false for one of which only a management
 * controller tells while others were seen.
 */
export function isSeenBySystem(facts: Facts, drive: Drive): boolean | null {
  const names = presentDrives(facts).map((d) => d.seenAs);
  return names.every((n) => n === "?") ? null : drive.seenAs !== "?";
}

/** Whether a member of a set does its part, by the words of the tools; counted errors speak against it. */
export const isSoundMember = (state: string): boolean =>
  /^(ONLINE|AVAIL|INUSE|in use|active|OK|listed|spare)/.test(state) && !state.includes("errors");

export const portName = (port: Port): string => `${port.seenAs} ${port.mac}`;

/** The machine in one line, from what is known of it. */
export function machineLine(facts: Facts): string {
  const { chassis, processors, memory } = facts;
  const drives = presentDrives(facts);
  return [
    [chassis?.maker, chassis?.model].filter(Boolean).join(" "),
    processors?.cores ? `${processors.cores} cores` : "",
    memory?.installedBytes || memory?.recognisedBytes ? formatMemory(facts) : "",
    drives.length > 0 ? `${drives.length} ${drives.length === 1 ? "drive" : "drives"}` : "",
    facts.ports.length > 0 ? `${facts.ports.length} ${facts.ports.length === 1 ? "port" : "ports"}` : "",
  ]
    .filter(Boolean)
    .join(" · ");
}

/** Memory is sold and shown in powers of 1024 alike; what is recognised is a little less than what is installed. */
function formatMemory(facts: Facts): string {
  const bytes = facts.memory?.installedBytes || facts.memory?.recognisedBytes || 0;
  const gib = bytes / 2 ** 30;
  return `${gib < 10 ? formatFixed(gib, 1) : Math.round(gib)} GiB memory`;
}

const BYTES = /Bytes$/;

/** How a fact is called where its name in the data is not what people say. */
const SAID: Record<string, string> = {
  maxMegahertz: "maximum clock",
  weightKilograms: "weight",
  mediaBytesPerSecond: "measured media speed",
  loginKept: "credential location",
  iommu: "IOMMU groups",
  uuid: "UUID",
  osId: "system ID",
  osName: "system",
  osVersion: "version",
  assetTag: "asset tag",
};

export const factName = (key: string): string =>
  SAID[key] ??
  key
    .replace(/([A-Z])/g, " $1")
    .toLowerCase()
    .replace(/ bytes$/, "");

const UNITS: [ending: string, words: (value: number) => string][] = [
  ["BytesPerSecond", (v) => `${formatDecimalBytes(v)}/s`],
  ["Megahertz", (v) => `${v} MHz`],
  ["Kilograms", (v) => `${v} kg`],
  ["Megabits", (v) => `${v} Mbit/s`],
];

/** "8 × 32 GiB DDR4": equal modules together, empty slots counted. */
function moduleWords(modules: NonNullable<Facts["memory"]>["modules"]): string {
  const counts = new Map<string, number>();
  for (const m of modules ?? []) {
    const words =
      m.sizeBytes === 0 ? "empty" : [formatBinaryBytes(m.sizeBytes), m.kind].filter(Boolean).join(" ");
    counts.set(words, (counts.get(words) ?? 0) + 1);
  }
  return [...counts].map(([words, n]) => `${n} × ${words}`).join(", ");
}

/** A fact's value for a person: sizes in both units, lists and nested values in words. */
export function factWords(path: string, value: unknown): string {
  if (path === "memory.modules" && Array.isArray(value)) return moduleWords(value as never);
  const unit = UNITS.find(([ending]) => path.endsWith(ending));
  if (unit && typeof value === "number") return unit[1](value);
  if (typeof value === "number" && BYTES.test(path))
    return path.startsWith("memory.") ? formatBinaryBytes(value) : formatBytes(value);
  if (/\.contents$/.test(path) && Array.isArray(value))
    return value.map((c: { part: string; kind: string }) => `${c.part} ${c.kind}`).join(", ") || "nothing";
  if (/\.addresses$/.test(path) && Array.isArray(value))
    return (
      value
        .map((a: { address: string; prefixLength: number }) => `${a.address}/${a.prefixLength}`)
        .join(", ") || "none"
    );
  if (Array.isArray(value) && value.length > 0 && typeof value[0] === "object")
    return `${value.length} ${value.length === 1 ? "item" : "items"}`;
  return shown(value);
}
