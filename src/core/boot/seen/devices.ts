import {
  isSeenBySystem,
  systemDrives,
  visibleDrives,
  type Drive,
  type Facts,
  type Port,
  MEDIA_NAMES,
} from "../../machine";
import { nodeOfKind, parseDevicePath, pathOf, type DevicePath } from "../path";
import type { BootDevice, BootEntry, Contents, DeviceKind, Volume } from "../resolve";

/** What is common to everything that is in the machine and can be seen. */
const HERE = {
  ...{ present: true, removable: false, hidden: null, contents: null, system: null },
  ...{ path: null, mac: null, answers: null },
} as const satisfies Partial<BootDevice>;

/** An entry that leads to a storage network is there only where the firmware or a card of its own reaches one. */
export function reachesSan({ firmware }: Facts): BootDevice["hidden"] {
  const entries = firmware?.entries ?? [];
  if (entries.length === 0) return "unknown";
  const leads = (path: string): boolean =>
    parseDevicePath(path).nodes.some((n) => n.kind === "place" && ["iscsi", "fibre"].includes(n.bus));
  return entries.some((e) => leads(e.path)) ? null : "no hardware initiator";
}

/** A drive of a RAID controller that only its management tells of is shown to nobody until it is part of a set. */
function hiddenOf(drive: Drive, facts: Facts): BootDevice["hidden"] {
  if (drive.san) return reachesSan(facts);
  if (drive.presentedBy !== null || isSeenBySystem(facts, drive) !== false) return null;
  const mode = facts.storageControllers.find((c) => c.id === drive.controller)?.mode;
  return mode === "RAID" ? "behind the controller" : "unknown";
}

const FAT = /^(v?fat|efi)/i;

type Part = NonNullable<Drive["contents"]>[number];
type EfiVolume = NonNullable<Drive["efiVolumes"]>[number];

/** A loader's owner names its folder; the fallback loader is anybody's. */
function startsWhat({ path }: EfiVolume["files"][number], system: string | null): string {
  const folder = /^\\efi\\([^\\]+)\\/i.exec(path)?.[1];
  return system ?? (folder && !/^boot$/i.test(folder) ? `the loader of "${folder}"` : "the loader");
}

/** The EFI programs of a FAT volume that somebody has looked into; null where nobody has since its partition was made. */
function loadersOf({ efiVolumes }: Drive, number: number, partUuid: string, system: string | null) {
  const read = efiVolumes?.find((v) => v.partition === number);
  if (!read || (read.partUuid && partUuid && read.partUuid.toLowerCase() !== partUuid)) return null;
  return read.files.map((file) => ({
    ...{ path: file.path, arch: file.arch, conduct: "starts the system" as const },
    // A signature is there or not; whether a key of this firmware made it is told by no tool.
    signed: file.isSigned ? null : false,
    starts: startsWhat(file, system),
  }));
}

/** Partitions as `lsblk` and `blkid` tell them, with the EFI programs that the collector found in those that are FAT. */
function volumeOf(drive: Drive, { part, kind, partUuid = "" }: Part, system: string | null): Volume {
  const isBare = part === drive.seenAs;
  const number = isBare ? 0 : Number(/(\d+)$/.exec(part)?.[1] ?? 0);
  const isFat = FAT.test(kind);
  const signature = partUuid.toLowerCase();
  return {
    partition: isBare ? null : { number, scheme: "GPT", signature },
    ...{ start: null, sectors: null, fat: isFat },
    loaders: isFat ? loadersOf(drive, number, signature, system) : [],
  };
}

function contentsOf(drive: Drive, system: string | null): Contents | null {
  const { contents, firstSector } = drive;
  if (contents === null) return null;
  return {
    sectorBytes: drive.logicalSectorBytes ?? 512,
    sizeBytes: drive.sizeBytes,
    volumes: contents.map((part) => volumeOf(drive, part, system)),
    ...{ unreadable: false, images: null },
    code: firstSector && {
      ...{ signature: firstSector.signature, starts: system ?? "" },
      // A valid first sector without code hangs a legacy firmware; what code does is not read from its bytes.
      conduct: firstSector.code ? null : "hangs",
    },
  };
}

function kindOf(drive: Drive, facts: Facts): DeviceKind {
  if (drive.san) return "SAN volume";
  const controller = facts.storageControllers.find((c) => c.id === drive.controller);
  if (drive.media === "card" || controller?.mode === "boot module") return "boot card";
  if (drive.presentedBy) return "virtual drive";
  if (drive.media === "usb") return drive.removable ? "stick" : "usb drive";
  return "drive";
}

/** How a drive is called in a picture: by its set or bay, else by its model; never by its serial, which gates ask for. */
export function shortName(drive: Drive): string {
  if (drive.san) return `${drive.san} volume`;
  if (drive.bay) return /^\d/.test(drive.bay) ? `bay ${drive.bay}` : drive.bay;
  return drive.presentedBy ?? drive.model ?? MEDIA_NAMES[drive.media];
}

/** Where a drive is, by the entry that firmware made for it: its name there holds the serial. */
const placeOf = ({ serial }: Drive, entries: readonly BootEntry[]): DevicePath | null =>
  entries.find((e) => e.own && serial !== null && serial.length >= 6 && e.label.includes(serial))?.path ??
  null;

function driveDevices(facts: Facts, entries: readonly BootEntry[], marks: readonly string[]): BootDevice[] {
  const { drives: standing = [] } = systemDrives(facts, marks) ?? {};
  const name = facts.system?.osName ?? "the running system";
  const started = startedFrom(facts, entries);
  return visibleDrives(facts).map((drive) => {
    const stands = started === drive || standing.includes(drive);
    return {
      ...HERE,
      ...{ id: drive.id, name: shortName(drive), label: drive.model ?? drive.id },
      ...{ kind: kindOf(drive, facts), removable: drive.removable, path: placeOf(drive, entries) },
      ...{ contents: contentsOf(drive, stands ? name : null), hidden: hiddenOf(drive, facts) },
      // Of several drives of one system it is not told from which it was started.
      system: stands ? { name, isSure: started === drive || standing.length === 1 } : null,
    };
  });
}

/** The drive with the partition of the entry that was started this time. */
function startedFrom({ firmware, drives }: Facts, entries: readonly BootEntry[]): Drive | undefined {
  const current = entries.find((e) => e.id === firmware?.currentEntry);
  const signature = current && nodeOfKind(current.path, "partition")?.signature;
  if (!signature) return undefined;
  return drives.find((d) => d.contents?.some((c) => c.partUuid?.toLowerCase() === signature));
}

const macOf = (port: Port): string => port.mac.toLowerCase().replaceAll(":", "");

const portDevice = (port: Port): BootDevice => ({
  ...HERE,
  ...{ id: port.mac, name: port.seenAs, label: port.seenAs, kind: "network port", mac: macOf(port) },
  answers: port.link === "down" ? { pxe: { kind: "link down" }, http: { kind: "link down" } } : null,
});

const HEAD_KINDS = new Set(["place", "vendor"]);

/** The hardware that an entry names and no tool has told of: a disc drive, a virtual one, a stick that was there. */
function namedOnly(entry: BootEntry, kind: string): BootDevice | null {
  const [head] = entry.path.nodes;
  if (!head || !HEAD_KINDS.has(head.kind) || entry.path.nodes.some((n) => n.kind === "mac")) return null;
  const optical = kind === "optical" || /cd|dvd|optical/i.test(entry.label);
  const isVirtual = /virtual/i.test(entry.label);
  const place = entry.path.nodes.findIndex((n) => n.kind !== "place" && n.kind !== "vendor");
  return {
    ...HERE,
    ...{ id: `entry ${entry.id}`, name: entry.label, label: entry.label },
    kind: optical ? (isVirtual ? "virtual disc" : "disc") : "drive",
    removable: optical,
    path: place === -1 ? entry.path : pathOf(entry.path.nodes.slice(0, place)),
    // A disc drive is part of the machine; another device may have been taken out since the entry was made.
    present: optical ? true : null,
  };
}

/** Everything that the machine may start from, by what was read of it. */
export function seenDevices(
  facts: Facts,
  entries: readonly BootEntry[],
  marks: readonly string[],
): BootDevice[] {
  const drives = driveDevices(facts, entries, marks);
  const ports = facts.ports.filter((p) => p.kind === "ethernet").map(portDevice);
  const kinds = new Map((facts.firmware?.entries ?? []).map((e) => [e.id, e.kind]));
  const known = new Set(drives.map((d) => d.path));
  const others = entries
    .filter((e) => !known.has(e.path))
    .map((e) => namedOnly(e, kinds.get(e.id) ?? ""))
    .filter((d) => d !== null);
  const first = others.filter((d, i) => others.findIndex((o) => samePlace(o, d)) === i);
  return [...drives, ...first, ...ports];
}

const samePlace = (a: BootDevice, b: BootDevice): boolean =>
  JSON.stringify(a.path?.nodes) === JSON.stringify(b.path?.nodes);

export { HERE };
