import { fileKey, hardwareOf, nodeOfKind, partitionKey, type HardDriveNode } from "../path";
import { attemptOf, failed, type Attempt, type End, type Tried } from "./attempt";
import { startDevice, startFallback, startFile } from "./loader";
import type { BootDevice, BootEntry, UefiMachine, Volume } from "./machine";
import { startNetwork } from "./network";
import { deviceMeant, devicesInOrder, listOf, type List, type Removed } from "./own-list";
import type { Oracle } from "./questions";
import { isPresent, isUsable, unusable } from "./visible";

/** What the list is after the start, and where the walk ended. */
export interface Walked {
  attempts: Attempt[];
  end: End;
  after: {
    order: readonly string[];
    entries: ReadonlyMap<string, BootEntry>;
    remembered: ReadonlyMap<string, string>;
  };
}

interface At {
  machine: UefiMachine;
  oracle: Oracle;
  remembered: Map<string, string>;
}

const volumesOf = ({ contents }: BootDevice): readonly Volume[] =>
  contents === null || contents === "no medium" ? [] : contents.volumes;

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
  if (file === undefined || !volume) return startFallback({ ...at, device }, volumes);
  const tried = startFile({ ...at, device }, volume, file);
  if (tried.reason !== "file missing" || at.oracle.ask("fallback of a lost entry", false) === false)
    return tried;
  const instead = startDevice({ ...at, device });
  return instead.outcome === "starts" ? instead : tried;
}

/** HD(...): the first drive in the firmware's order that carries the partition; the one of the last time before all. */
function startPartition(at: At, entry: BootEntry, node: HardDriveNode, file: string | undefined): Tried {
  const { machine, oracle, remembered } = at;
  const key = partitionKey(node);
  const carriers = machine.devices.filter((d) => volumesOf(d).some((v) => isPartition(v, node)));
  const last = remembered.get(key);
  const there = carriers
    .filter((d) => isUsable(d, oracle) && !isUnreadable(d))
    .toSorted(
      (a, b) => Number(keyOf(b) === last) - Number(keyOf(a) === last) || inOrder(machine, oracle, a, b),
    );
  const [device] = there;
  if (device) {
    remembered.set(key, keyOf(device));
    return startOn(
      at,
      device,
      volumesOf(device).filter((v) => isPartition(v, node)),
      file,
    );
  }
  const meant = carriers[0] ?? deviceMeant(machine, entry);
  if (!meant || isUnreadable(meant)) return failed(meant ? "table unreadable" : "partition missing", meant);
  return unusable(meant, oracle) ?? failed("partition missing", meant);
}

const isUnreadable = ({ contents }: BootDevice): boolean =>
  contents !== null && contents !== "no medium" && contents.unreadable;
const keyOf = (device: BootDevice): string => (device.path ? hardwareOf(device.path) : device.id);

function inOrder(machine: UefiMachine, oracle: Oracle, a: BootDevice, b: BootDevice): number {
  if (a === b) return 0;
  const order = devicesInOrder(machine, oracle);
  return order.indexOf(a) - order.indexOf(b);
}

/** A path that begins with hardware: that very place, whatever hangs there now. */
function startAt(at: At, entry: BootEntry): Tried {
  const device = deviceMeant(at.machine, entry);
  if (!device) return failed("device absent");
  const stopped = unusable(device, at.oracle);
  if (stopped) return stopped;
  const file = nodeOfKind(entry.path, "file")?.path;
  const node = nodeOfKind(entry.path, "partition");
  if (!node) return file === undefined ? startDevice({ ...at, device }) : startBare(at, file, [device]);
  if (isUnreadable(device)) return failed("table unreadable", device);
  const volumes = volumesOf(device).filter((v) => isExactly(v, node));
  if (device.contents !== null && volumes.length === 0) return failed("partition missing", device);
  return startOn(at, device, volumes.length > 0 ? volumes : [UNREAD], file);
}

const UNREAD: Volume = { partition: null, start: null, sectors: null, fat: null, loaders: null };

/** A file without a place is looked for on removable media first, then on fixed drives. */
function startBare(at: At, file: string, devices?: readonly BootDevice[]): Tried {
  const { machine, oracle } = at;
  const all =
    devices ??
    machine.devices.filter((d) => isUsable(d, oracle)).toSorted((a, b) => inOrder(machine, oracle, a, b));
  for (const device of all.toSorted((a, b) => Number(b.removable) - Number(a.removable)))
    for (const volume of everyVolume(device))
      if (volume.loaders?.some((l) => fileKey(l.path) === fileKey(file)))
        return startFile({ ...at, device }, volume, file);
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
  const [device] = sticks.toSorted((a, b) => inOrder(machine, oracle, a, b));
  return device ? startDevice({ ...at, device }) : failed("device absent");
}

function startPort(at: At, entry: BootEntry): Tried {
  const device = deviceMeant(at.machine, entry);
  if (!device || !isPresent(device, at.oracle)) return failed("device absent", device);
  return startNetwork(device, nodeOfKind(entry.path, "uri") ? "http" : "pxe", at.oracle);
}

/** A program of the firmware itself. */
function startFirmware({ machine, oracle }: At, guid: string, label: string): Tried {
  const isShell = machine.programs.shell?.guid === guid || /shell/i.test(label);
  if (isShell && (machine.secureBoot ?? oracle.ask("secure boot", true))) return failed("shell refused");
  return { device: null, file: null, outcome: "starts", reason: null, starts: isShell ? "shell" : "set-up" };
}

/** What comes of one entry. */
function startEntry(at: At, entry: BootEntry): Tried {
  const { path, label } = entry;
  const [head] = path.nodes;
  if (!head) return failed("path unreadable");
  if (nodeOfKind(path, "mac")) return startPort(at, entry);
  switch (head.kind) {
    case "place":
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
      return startFirmware(
        at,
        nodeOfKind({ ...path, nodes: path.nodes.slice(-1) }, "firmware")?.guid ?? "",
        label,
      );
    case "legacy":
      return failed("needs compatibility");
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
function* met({ order, removed }: List): Generator<{ id: string } | Removed> {
  const gone = (after: string) => removed.filter((r) => r.after === after && !order.includes(r.id));
  yield* gone("");
  for (const id of order) {
    yield { id };
    yield* gone(id);
  }
}

/** Walks the list of a UEFI firmware: the one-time choice, then the order, until something runs. */
export function walkUefi(machine: UefiMachine, oracle: Oracle): Walked {
  const list = listOf(machine, oracle);
  const at: At = { machine, oracle, remembered: new Map(machine.remembered) };
  const attempts: Attempt[] = [];
  const note = (tried: Tried, via: Attempt["via"], entry: Pick<BootEntry, "id" | "label"> | null) => {
    attempts.push(attemptOf(tried, { via, entry: entry?.id ?? null, label: entry?.label ?? "" }, "uefi"));
    return endOf(tried, oracle);
  };
  const setUp = (): void => {
    const guid = machine.programs.setup?.guid ?? "";
    const entry = [...list.entries.values()].find((e) =>
      e.path.nodes.some((n) => n.kind === "firmware" && n.guid === guid),
    );
    const tried: Tried = { device: null, file: null, outcome: "starts", reason: null, starts: "set-up" };
    note(tried, "set-up", entry ?? null);
  };
  const walk = (): End => {
    if (machine.toSetup) return { kind: "set-up" };
    const once = machine.once === null ? undefined : list.entries.get(machine.once);
    if (machine.once !== null && !once)
      note(failed("entry missing"), "once", { id: machine.once, label: "" });
    const first = once && note(startEntry(at, once), "once", once);
    if (first) return first;
    for (const step of met(list)) {
      if ("why" in step) {
        const { entry, id } = step;
        note(failed(step.why, entry && deviceMeant(machine, entry)), "order", entry ?? { id, label: "" });
      } else {
        const entry = list.entries.get(step.id)!;
        const over = passedOver(entry);
        const end = note(
          over ? failed(over, deviceMeant(machine, entry)) : startEntry(at, entry),
          "order",
          entry,
        );
        if (end) return end;
      }
    }
    return { kind: "nothing" };
  };
  const end = walk();
  if (end.kind === "set-up" && attempts.at(-1)?.starts !== "set-up") setUp();
  return { attempts, end, after: { order: list.order, entries: list.entries, remembered: at.remembered } };
}
