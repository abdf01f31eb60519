import { fileKey, nodeOfKind, partitionKey, type HardDriveNode } from "../path";
import { attemptOf, failed, type Attempt, type End, type Tried } from "./attempt";
import { startDevice, startFallback, startFile } from "./loader";
import type { BootDevice, BootEntry, UefiMachine, Volume } from "./machine";
import { startByType } from "./legacy";
import { startNetwork } from "./network";
import { deviceMeant, mayCarry, placeKey, volumesOf, type Carrier, type Known } from "./known";
import { devicesInOrder, listOf, type List, type Removed } from "./own-list";
import type { Oracle } from "./questions";
import { isPresent, isUsable, unusable } from "./visible";

/** Where a walk ended, and what the list of the firmware is afterwards. */
export interface Walked {
  attempts: Attempt[];
  end: End;
  after(): {
    order: readonly string[];
    entries: ReadonlyMap<string, BootEntry>;
    remembered: ReadonlyMap<string, string>;
  };
}

interface At {
  machine: UefiMachine;
  known: Known;
  oracle: Oracle;
  remembered: Map<string, string>;
}

const isPartition = (volume: Volume, node: HardDriveNode): boolean =>
  volume.partition !== null && partitionKey(volume.partition) === partitionKey(node);

/** A full path names start and size as well; the short form is matched by identity and number only. */
const isExactly = (volume: Volume, node: HardDriveNode): boolean =>
  isPartition(volume, node) &&
  (node.start === null || volume.start === null || node.start === volume.start) &&
  (node.sectors === null || volume.sectors === null || node.sectors === volume.sectors);

/** The file of an entry, or the loader that firmware looks for by itself; some look for that also where the file is gone. */
function startOn(at: At, device: BootDevice, volumes: readonly Volume[], file: string | undefined): Tried {
  const [volume] = volumes;
  // Who made an entry for a partition had put something there.
  if (file === undefined || !volume) return startFallback(at, device, volumes, true);
  const tried = startFile(at, device, volume, file);
  if (tried.reason !== "file missing" || at.oracle.ask("fallback of a lost entry", false) === false)
    return tried;
  const instead = startDevice(at, device);
  return instead.outcome === "starts" ? instead : tried;
}

/** HD(...): the first drive in the firmware's order that carries the partition; the one of the last time before all. */
function startPartition(at: At, entry: BootEntry, node: HardDriveNode, file: string | undefined): Tried {
  const { known, oracle, remembered } = at;
  const key = partitionKey(node);
  const carriers = known.carriers.get(key) ?? NONE;
  const found = foundOn(at, carriers, remembered.get(key));
  if (found) {
    remembered.set(key, placeKey(found.device));
    return startOn(at, found.device, found.volumes, file);
  }
  const unread = carriers.length === 0 ? unreadCarrier(at, entry) : undefined;
  if (unread) return startOn(at, unread, [UNREAD], file);
  const meant = carriers[0]?.device ?? deviceMeant(known, entry);
  if (!meant || isUnreadable(meant)) return failed(meant ? "table unreadable" : "partition missing", meant);
  return unusable(meant, oracle) ?? failed("partition missing", meant);
}

const NONE: readonly Carrier[] = [];

/** The drive on which a partition is found: where it was the last time, else the first in the firmware's order. */
function foundOn(at: At, carriers: readonly Carrier[], last: string | undefined): Carrier | undefined {
  const there = carriers.filter((c) => isUsable(c.device, at.oracle) && !isUnreadable(c.device));
  if (there.length < 2) return there[0];
  return there.find((c) => placeKey(c.device) === last) ?? firstInOrder(at, there, (c) => c.device);
}

/** A drive whose partitions nobody has told apart may carry the one that an entry names. */
function unreadCarrier({ machine, oracle }: At, { label }: BootEntry): BootDevice | undefined {
  return machine.devices
    .filter((d) => mayCarry(d) && isUsable(d, oracle))
    .toSorted((a, b) => Number(b.system !== null) - Number(a.system !== null))
    .find((d) => oracle.ask("carries", true, `${d.id} ${label}`, { device: d.name, entry: label }));
}

const isUnreadable = ({ contents }: BootDevice): boolean =>
  contents !== null && contents !== "no medium" && contents.unreadable;

/** The one that the firmware comes to first. */
function firstInOrder<T>(
  { machine, oracle }: At,
  all: readonly T[],
  deviceOf: (one: T) => BootDevice,
): T | undefined {
  if (all.length < 2) return all[0];
  const order = devicesInOrder(machine, oracle);
  return all.toSorted((a, b) => order.indexOf(deviceOf(a)) - order.indexOf(deviceOf(b)))[0];
}

/** A path that begins with hardware: that very place, whatever hangs there now. */
function startAt(at: At, entry: BootEntry): Tried {
  const device = deviceMeant(at.known, entry);
  if (!device) return failed("device absent");
  const stopped = unusable(device, at.oracle);
  if (stopped) return stopped;
  const file = nodeOfKind(entry.path, "file")?.path;
  const node = nodeOfKind(entry.path, "partition");
  if (!node) return file === undefined ? startDevice(at, device) : startBare(at, file, [device]);
  if (isUnreadable(device)) return failed("table unreadable", device);
  const volumes = volumesOf(device).filter((v) => isExactly(v, node));
  if (device.contents !== null && volumes.length === 0) return failed("partition missing", device);
  return startOn(at, device, volumes.length > 0 ? volumes : [UNREAD], file);
}

const UNREAD: Volume = { partition: null, start: null, sectors: null, fat: null, loaders: null };

/** A file without a place is looked for on removable media first, then on fixed drives. */
function startBare(at: At, file: string, devices?: readonly BootDevice[]): Tried {
  const { machine, oracle } = at;
  const all = devices ?? devicesInOrder(machine, oracle);
  for (const device of all.toSorted((a, b) => Number(b.removable) - Number(a.removable)))
    for (const volume of everyVolume(device))
      if (volume.loaders?.some((l) => fileKey(l.path) === fileKey(file)))
        return startFile(at, device, volume, file);
  return failed("file missing", devices?.[0] ?? null, file);
}

function everyVolume(device: BootDevice): readonly Volume[] {
  const { contents } = device;
  if (contents === null || contents === "no medium" || contents.unreadable) return [];
  return [
    ...(contents.images ?? []).filter((i) => i.platform === "uefi").map((i) => i.volume),
    ...contents.volumes,
  ];
}

const isUsb = ({ kind, path }: BootDevice): boolean =>
  kind === "stick" ||
  kind === "usb drive" ||
  (path?.nodes.some((n) => n.kind === "place" && n.bus === "usb") ?? false);

/** Any stick: the first that is there. */
function startUsb(at: At, serial: string | undefined): Tried {
  const { machine, oracle } = at;
  const sticks = machine.devices.filter(
    (d) => isUsb(d) && isUsable(d, oracle) && (serial === undefined || d.label.includes(serial)),
  );
  const device = firstInOrder(at, sticks, (d) => d);
  return device ? startDevice(at, device) : failed("device absent");
}

function startPort(at: At, entry: BootEntry): Tried {
  const device = deviceMeant(at.known, entry);
  if (!device || !isPresent(device, at.oracle)) return failed("device absent", device);
  return startNetwork(device, nodeOfKind(entry.path, "uri") ? "http" : "pxe", at.oracle);
}

const lastGuid = ({ nodes }: BootEntry["path"]): string => {
  const last = nodes.at(-1);
  return last?.kind === "firmware" ? last.guid : "";
};

/** A program of the firmware itself. */
function startFirmware({ machine, oracle }: At, guid: string, label: string): Tried {
  const isShell = machine.programs.shell?.guid === guid || /shell/i.test(label);
  if (isShell && (machine.secureBoot ?? oracle.ask("secure boot", true))) return failed("shell refused");
  return { device: null, file: null, outcome: "starts", reason: null, starts: isShell ? "shell" : "set-up" };
}

/** What comes of one entry. */
function startEntry(at: At, entry: BootEntry): Tried {
  const { path, label } = entry;
  const { machine, oracle } = at;
  const [head] = path.nodes;
  if (!head) return failed("path unreadable");
  if (nodeOfKind(path, "mac")) return startPort(at, entry);
  switch (head.kind) {
    case "place":
    case "other":
      return startAt(at, entry);
    case "partition":
      return startPartition(at, entry, head, nodeOfKind(path, "file")?.path);
    case "file":
      return startBare(at, head.path);
    case "usb class":
      return startUsb(at, undefined);
    case "usb serial":
      return startUsb(at, head.serial);
    case "firmware":
      return startFirmware(at, lastGuid(path), label);
    case "legacy":
      return (machine.compatibility ?? oracle.ask("compatibility", false))
        ? startByType(head.type, machine.devices, oracle)
        : failed("needs compatibility");
    default:
      return failed(path.fault ? "path unreadable" : "device absent");
  }
}

/** What stands in the list and is not tried. */
function passedOver(entry: BootEntry): "entry inactive" | "entry application" | null {
  if (entry.application) return "entry application";
  return entry.active ? null : "entry inactive";
}

/** Where an attempt ends the walk; null where the firmware goes on. */
function endOf(tried: Tried, oracle: Oracle): End | null {
  if (tried.outcome === "hangs") return { kind: "hangs", device: tried.device };
  if (tried.outcome === "returns") return oracle.ask("return ends", true) ? { kind: "set-up" } : null;
  if (tried.outcome !== "starts") return null;
  if (!tried.device) return { kind: tried.starts === "shell" ? "shell" : "set-up" };
  return { kind: "system", device: tried.device, starts: tried.starts ?? "", file: tried.file };
}

/** The ids in the order in which the walk meets them, with what was taken away at its old place. */
function met({ order, removed }: List): Iterable<{ id: string } | Removed> {
  const ids = order.map((id) => ({ id }));
  return removed.length === 0 ? ids : withRemoved(ids, removed);
}

function* withRemoved(
  order: readonly { id: string }[],
  removed: readonly Removed[],
): Generator<{ id: string } | Removed> {
  const ids = new Set(order.map((o) => o.id));
  // What stood behind something that is gone as well comes right after it.
  function* gone(after: string): Generator<Removed> {
    for (const r of removed.filter((x) => x.after === after && !ids.has(x.id))) {
      yield r;
      yield* gone(r.id);
    }
  }
  yield* gone("");
  for (const step of order) {
    yield step;
    yield* gone(step.id);
  }
}

const SET_UP: Tried = { device: null, file: null, outcome: "starts", reason: null, starts: "set-up" };

/** One walk along the list: what was tried, and what was found on the way. */
class Walk {
  readonly attempts: Attempt[] = [];
  readonly at: At;

  constructor(
    private readonly known: Known,
    private readonly oracle: Oracle,
    private readonly list: List,
  ) {
    const { machine } = known;
    this.at = { machine, known, oracle, remembered: new Map(machine.remembered) };
  }

  private note(tried: Tried, via: Attempt["via"], entry: Pick<BootEntry, "id" | "label"> | null): End | null {
    this.attempts.push(
      attemptOf(tried, { via, entry: entry?.id ?? null, label: entry?.label ?? "" }, "uefi"),
    );
    return endOf(tried, this.oracle);
  }

  /** The one-time choice, which is tried before the order, whatever its attributes are. */
  private chosen(): End | null {
    const { once } = this.known.machine;
    if (once === null) return null;
    const entry = this.list.entries.get(once);
    if (entry) return this.note(startEntry(this.at, entry), "once", entry);
    const gone = this.list.removed.find(({ id, why }) => id === once && why !== "entry missing");
    return this.note(
      failed(gone?.why ?? "entry missing", gone?.entry && deviceMeant(this.known, gone.entry)),
      "once",
      gone?.entry ?? { id: once, label: "" },
    );
  }

  /** Along the order, until something runs. */
  private along(steps: Iterable<{ id: string } | Removed>): End | null {
    for (const step of steps) {
      const end = "why" in step ? this.passed(step) : this.tryNext(this.list.entries.get(step.id)!);
      if (end) return end;
    }
    return null;
  }

  private passed({ entry, id, why }: Removed): null {
    this.note(failed(why, entry && deviceMeant(this.known, entry)), "order", entry ?? { id, label: "" });
    return null;
  }

  private tryNext(entry: BootEntry): End | null {
    // A firmware that adds nothing by itself ends here, for all that it would add stands at the end.
    if (this.list.added.has(entry) && !this.oracle.ask("own entries", true)) return { kind: "nothing" };
    const over = passedOver(entry);
    const tried = over ? failed(over, deviceMeant(this.known, entry)) : startEntry(this.at, entry);
    return this.note(tried, "order", entry);
  }

  private run(): End {
    const { machine } = this.known;
    if (machine.toSetup) return { kind: "set-up" };
    const end = this.chosen() ?? this.along(met(this.list));
    if (end) return end;
    const before = this.list.order.length;
    this.list.complete(this.oracle);
    return this.along(this.list.order.slice(before).map((id) => ({ id }))) ?? { kind: "nothing" };
  }

  /** Where it ends; the set-up pages that a firmware opens by itself are an attempt as well. */
  toEnd(): End {
    const end = this.run();
    if (end.kind === "set-up" && this.attempts.at(-1)?.starts !== "set-up") {
      const { setup } = this.known.machine.programs;
      const isIt = (e: BootEntry): boolean => lastGuid(e.path) === setup?.guid;
      this.note(SET_UP, "set-up", [...this.list.entries.values()].find(isIt) ?? null);
    }
    return end;
  }
}

/** Walks the list of a UEFI firmware: the one-time choice, then the order, until something runs. */
export function walkUefi(known: Known, oracle: Oracle, list = listOf(known, oracle)): Walked {
  const walk = new Walk(known, oracle, list);
  const end = walk.toEnd();
  return {
    ...{ attempts: walk.attempts, end },
    after() {
      list.complete(oracle);
      return { order: list.order, entries: list.entries, remembered: walk.at.remembered };
    },
  };
}
