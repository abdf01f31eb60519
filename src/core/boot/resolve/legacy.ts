import { attemptOf, failed, type Attempt, type End, type Tried } from "./attempt";
import {
  TYPES,
  type BootDevice,
  type Contents,
  type DeviceType,
  type LegacyMachine,
  type Rank,
} from "./machine";
import { startNetwork } from "./network";
import type { Oracle } from "./questions";
import { isPresent, isSeen } from "./visible";

/** Legacy firmware knows four types; a stick is a hard disk to it. */
export function typeOf({ kind }: BootDevice): DeviceType {
  if (kind === "floppy") return "floppy";
  if (kind === "disc" || kind === "virtual disc") return "disc";
  return kind === "network port" ? "network" : "disk";
}

/** 2 TiB: legacy calls through a USB bridge reach 2^32 sectors of 512 bytes. */
const REACH = 2 ** 41;

/** Whether all that the first sector of a large USB drive can load lies where legacy calls do not reach. */
function isBeyondReach({ kind }: BootDevice, { sizeBytes, volumes, code }: Contents): boolean {
  if ((kind !== "stick" && kind !== "usb drive") || sizeBytes <= REACH) return false;
  const starts = code?.loads == null ? volumes.map((v) => v.start) : [code.loads];
  return starts.length > 0 && starts.every((sector) => sector !== null && sector * 512 >= REACH);
}

/** Nobody has read its first sector: it starts what is known to start from it, else it is asked. */
function startUnread(device: BootDevice, oracle: Oracle, likely = device.system !== null): Tried {
  const is =
    device.system?.isSure || oracle.ask("starts something", likely, device.id, { device: device.name });
  if (!is) return failed("no signature", device);
  return { device, file: null, outcome: "starts", reason: null, starts: device.system?.name ?? "" };
}

function startDisk(device: BootDevice, oracle: Oracle): Tried {
  const { contents } = device;
  if (contents === null) return startUnread(device, oracle);
  if (contents === "no medium") return failed("no medium", device);
  if (contents.sectorBytes !== 512) return failed("sectors unreadable", device);
  const { code } = contents;
  if (!code) return startUnread(device, oracle);
  if (!code.signature) return failed("no signature", device);
  if (isBeyondReach(device, contents))
    return { ...failed("beyond reach", device), starts: code.starts || null };
  if (code.conduct === null) return startUnread(device, oracle, true);
  if (code.conduct === "hangs") return failed("code hangs", device);
  if (code.conduct === "gives up") return { ...failed("gave up", device), starts: code.starts || null };
  return { device, file: null, outcome: "starts", reason: null, starts: code.starts };
}

function startDisc(device: BootDevice, oracle: Oracle): Tried {
  const { contents } = device;
  if (contents === null) return startUnread(device, oracle);
  if (contents === "no medium") return failed("no medium", device);
  if (!contents.images) return failed("no catalogue", device);
  const image = contents.images.find((i) => i.platform === "legacy");
  return image
    ? { device, file: null, outcome: "starts", reason: null, starts: image.starts }
    : failed("UEFI image only", device);
}

const LAST = 1000;

/** One place in the walk: a device, or a type of which none is attached. */
type Place = { device: BootDevice; type: DeviceType } | { device: null; type: "disk" | "floppy" };

/** Buses in the order in which a legacy firmware finds its disks. */
const BUSES = ["ata", "sata", "pci", "usb", "scsi", "sas", "card", "nvme"];
const busOf = ({ path }: BootDevice): number => {
  const places = path?.nodes.filter((n) => n.kind === "place") ?? [];
  return BUSES.indexOf(places.at(-1)?.bus ?? "");
};

/** Everything in the order in which it is tried: what is ranked, then the rest by type. */
function placesOf(machine: LegacyMachine, oracle: Oracle): Place[] {
  const ranks = machine.once ?? machine.order;
  const seen = machine.devices.filter((d) => isPresent(d, oracle) && isSeen(d, oracle));
  const rankOf = (test: (rank: Rank) => boolean): number => {
    const at = ranks.findIndex(test);
    return at === -1 ? LAST : at;
  };
  const ofType = (type: DeviceType): number => rankOf((r) => "type" in r && r.type === type);
  const priority = (d: BootDevice): number => {
    const own = rankOf((r) => "device" in r && r.device === d.id);
    return own < LAST ? own : ofType(typeOf(d));
  };
  const ranked = seen
    .map((device) => ({ device, type: typeOf(device), priority: priority(device) }))
    .filter((p) => !machine.strict || p.priority < LAST);
  const hasNo = (type: DeviceType): boolean => !ranked.some((p) => p.type === type);
  const empty =
    hasNo("disk") && !machine.strict
      ? [{ device: null, type: "disk" as const, priority: ofType("disk") }]
      : [];
  // A type of which nothing is attached comes after what is.
  const order = (p: { type: DeviceType; device: BootDevice | null }) =>
    TYPES.indexOf(p.type) + (p.device ? 0 : LAST);
  const bus = (p: Place): number => (p.device ? busOf(p.device) : 0);
  const sorted: Place[] = [...ranked, ...empty].toSorted(
    (a, b) => a.priority - b.priority || order(a) - order(b) || bus(a) - bus(b),
  );
  return hasNo("floppy") && !machine.strict ? [...sorted, { device: null, type: "floppy" }] : sorted;
}

/** What comes of one place. */
function startPlace(place: Place, oracle: Oracle): Tried {
  if (!place.device) return failed(place.type === "disk" ? "no disk" : "no floppy");
  if (place.type === "disc") return startDisc(place.device, oracle);
  return place.type === "network"
    ? startNetwork(place.device, "pxe", oracle)
    : startDisk(place.device, oracle);
}

/** Types as the entries of a legacy device name them (BIOS Boot Specification, by way of UEFI's BBS node). */
const BBS: Readonly<Record<string, DeviceType>> = {
  ...{ hd: "disk", usb: "disk", cdrom: "disc", floppy: "floppy", network: "network" },
};

/** A UEFI firmware with compatibility support starts the first device of a type as a legacy firmware does. */
export function startByType(bbs: string, devices: readonly BootDevice[], oracle: Oracle): Tried {
  const type = BBS[bbs] ?? "disk";
  const device = devices.find((d) => typeOf(d) === type && isPresent(d, oracle) && isSeen(d, oracle));
  return device ? startPlace({ device, type }, oracle) : failed("device absent");
}

/** Walks the order of a legacy firmware: discs and ports one by one, of the disks the first only. */
export function walkLegacy(machine: LegacyMachine, oracle: Oracle): { attempts: Attempt[]; end: End } {
  const attempts: Attempt[] = [];
  const tried = new Set<DeviceType>();
  for (const place of placesOf(machine, oracle)) {
    const single = place.type === "disk" || place.type === "floppy";
    if (single && tried.has(place.type) && !oracle.ask("second disk", false)) continue;
    tried.add(place.type);
    const result = startPlace(place, oracle);
    const head = { via: machine.once ? ("once" as const) : ("order" as const), entry: null };
    attempts.push(attemptOf(result, { ...head, label: place.device?.name ?? place.type }, "legacy"));
    if (result.outcome === "hangs") return { attempts, end: { kind: "hangs", device: result.device } };
    if (result.outcome === "starts" && result.device)
      return {
        attempts,
        end: { kind: "system", device: result.device, starts: result.starts ?? "", file: null },
      };
  }
  return { attempts, end: { kind: "nothing" } };
}
