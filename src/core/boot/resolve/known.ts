import {
  nodeOfKind,
  parseDevicePath,
  partitionKey,
  pathKey,
  pathOf,
  type DevicePath,
  type HardDriveNode,
} from "../path";
import type { BootDevice, BootEntry, UefiMachine, Volume } from "./machine";

/** Paths of the entries that firmware makes for a port: PXE over IPv4 (twice) and IPv6, HTTP over both. */
const NETWORK_ENDS = ["", "/IPv4(0.0.0.0)", "/IPv6(::)", "/IPv4(0.0.0.0)/Uri()", "/IPv6(::)/Uri()"].map(
  (end) => parseDevicePath(`MAC(000000000000,1)${end}`).nodes.slice(1),
);

export type Bare = Omit<BootEntry, "id">;

/** For a device whose place no tool told: a path that names it by its id. */
export const standIn = (device: Pick<BootDevice, "id">): DevicePath =>
  pathOf([{ kind: "other", text: device.id }]);

/** The entries that firmware makes for a device. */
export function entriesFor(device: BootDevice): Bare[] {
  const { path, label } = device;
  const own = (at: DevicePath): Bare => ({ label, active: true, application: false, own: true, path: at });
  if (device.kind !== "network port") return [own(path ?? standIn(device))];
  if (!path) return [];
  const mac = path.nodes.some((n) => n.kind === "mac")
    ? path.nodes
    : [...path.nodes, { kind: "mac" as const, address: device.mac ?? "" }];
  return NETWORK_ENDS.map((end) => own({ ...path, nodes: [...mac, ...end] }));
}

/** A drive with those of its volumes that are one partition. */
export interface Carrier {
  device: BootDevice;
  volumes: Volume[];
}

/** What the walks through a UEFI machine look up, worked out once for all of them. */
export interface Known {
  machine: UefiMachine;
  byHardware: ReadonlyMap<string, BootDevice>;
  byMac: ReadonlyMap<string, BootDevice>;
  byId: ReadonlyMap<string, BootDevice>;
  /** By partition, in the order of the devices. */
  carriers: ReadonlyMap<string, Carrier[]>;
  /** By signature alone, whatever its number: the first. */
  bySignature: ReadonlyMap<string, BootDevice>;
  /** Keys of the paths of own entries that stand in the list. */
  keys: ReadonlyMap<BootEntry, string>;
}

export const volumesOf = ({ contents }: BootDevice): readonly Volume[] =>
  contents === null || contents === "no medium" ? [] : contents.volumes;

const DRIVES: readonly BootDevice["kind"][] = [
  "drive",
  "virtual drive",
  "boot card",
  "usb drive",
  "SAN volume",
];

/** A drive of which nobody has told apart the partitions that firmware can read: it may carry one that an entry names. */
export const mayCarry = (device: BootDevice): boolean =>
  device.contents === null
    ? DRIVES.includes(device.kind)
    : volumesOf(device).some((v) => v.partition?.signature === "" && v.fat !== false);

/** The place of a device as one text; its id where no tool told the place. */
export const placeKey = (device: BootDevice): string => device.path?.hardware ?? device.id;

const signatureKey = ({ scheme, signature }: Pick<HardDriveNode, "scheme" | "signature">): string =>
  `${scheme} ${signature}`;

/** Notes the first of a key. */
function putFirst<T>(map: Map<string, T>, key: string, value: T): void {
  if (!map.has(key)) map.set(key, value);
}

function putVolume(carriers: Map<string, Carrier[]>, key: string, device: BootDevice, volume: Volume): void {
  const all = carriers.get(key);
  const last = all?.at(-1);
  if (!all) carriers.set(key, [{ device, volumes: [volume] }]);
  else if (last?.device === device) last.volumes.push(volume);
  else all.push({ device, volumes: [volume] });
}

/** Works out what is looked up of a machine. */
export function knownOf(machine: UefiMachine): Known {
  const byHardware = new Map<string, BootDevice>();
  const byMac = new Map<string, BootDevice>();
  const byId = new Map<string, BootDevice>();
  const bySignature = new Map<string, BootDevice>();
  const carriers = new Map<string, Carrier[]>();
  for (const device of machine.devices) {
    putFirst(byId, device.id, device);
    if (device.path) putFirst(byHardware, device.path.hardware, device);
    if (device.mac) putFirst(byMac, device.mac, device);
    for (const volume of volumesOf(device)) {
      if (!volume.partition) continue;
      putFirst(bySignature, signatureKey(volume.partition), device);
      putVolume(carriers, partitionKey(volume.partition), device, volume);
    }
  }
  const keys = new Map<BootEntry, string>();
  for (const entry of machine.entries) if (entry.own) keys.set(entry, pathKey(entry.path));
  return { machine, byHardware, byMac, byId, bySignature, carriers, keys };
}

/** Which device an entry means, whether it is there or not. */
export function deviceMeant(known: Known, { path }: Pick<BootEntry, "path">): BootDevice | null {
  const [head] = path.nodes;
  if (!head) return null;
  const mac = nodeOfKind(path, "mac")?.address;
  if (mac) return known.byMac.get(mac) ?? null;
  if (head.kind === "place") return known.byHardware.get(path.hardware) ?? null;
  if (head.kind === "other") return known.byId.get(head.text) ?? null;
  const partition = nodeOfKind(path, "partition");
  return partition ? (known.bySignature.get(signatureKey(partition)) ?? null) : null;
}
