import {
  comparePlaces,
  hardwareOf,
  nodeOfKind,
  parseDevicePath,
  partitionKey,
  pathKey,
  type DevicePath,
} from "../path";
import type { BootDevice, BootEntry, UefiMachine } from "./machine";
import type { Oracle } from "./questions";
import { isUsable } from "./visible";

/** Attributes of entries that firmware makes: active; active, hidden, category application. */
const firmwarePath = (guid: string): DevicePath => ({
  nodes: [{ kind: "firmware", volume: false, guid }],
  ...{ data: "", fault: null },
});

/** Paths of the entries that firmware makes for a port: PXE over IPv4 (twice) and IPv6, HTTP over both. */
const NETWORK_ENDS = ["", "/IPv4(0.0.0.0)", "/IPv6(::)", "/IPv4(0.0.0.0)/Uri()", "/IPv6(::)/Uri()"].map(
  (end) => parseDevicePath(`MAC(000000000000,1)${end}`).nodes.slice(1),
);

type Bare = Omit<BootEntry, "id">;

function entriesFor(device: BootDevice): Bare[] {
  const { path, label } = device;
  if (!path) return [];
  const own = { label, active: true, application: false, own: true };
  if (device.kind !== "network port") return [{ ...own, path }];
  const mac = path.nodes.some((n) => n.kind === "mac")
    ? path.nodes
    : [...path.nodes, { kind: "mac" as const, address: device.mac ?? "" }];
  return NETWORK_ENDS.map((end) => ({ ...own, path: { ...path, nodes: [...mac, ...end] } }));
}

/** All devices of which firmware makes entries, removable media first, then fixed drives, then ports; each as the buses go. */
export function devicesInOrder(machine: UefiMachine, oracle: Oracle): BootDevice[] {
  const { emulatorOrder } = machine;
  const usable = machine.devices.filter(
    (d) => d.path && isUsable(d, oracle) && (!emulatorOrder || emulatorOrder.includes(d.id)),
  );
  const rank = (d: BootDevice): number => (d.kind === "network port" ? 2 : d.removable ? 0 : 1);
  const sorted = usable.toSorted((a, b) => rank(a) - rank(b) || comparePlaces(a.path!, b.path!));
  const hasBoth = sorted.some((d) => rank(d) === 0) && sorted.some((d) => rank(d) === 1);
  // Only a new list is made from nothing; a device that is found later goes to its end.
  if (machine.order !== null || !hasBoth || oracle.ask("removable first", true)) return sorted;
  return sorted.toSorted((a, b) => ((rank(a) + 2) % 3) - ((rank(b) + 2) % 3));
}

/** What the order names and the firmware does not walk: an entry that it takes away, or an id without one. */
export interface Removed {
  id: string;
  entry: BootEntry | null;
  /** The id that stood before it in the order; "" for the first. */
  after: string;
  why: "entry removed" | "entry dropped" | "entry missing";
}

/** The list as the firmware leaves it before it begins to walk. */
export interface List {
  entries: ReadonlyMap<string, BootEntry>;
  order: readonly string[];
  removed: readonly Removed[];
}

/** The lowest number that neither the order nor the one-time choice uses. */
function freeNumber(order: readonly string[], once: string | null): string {
  for (let n = 0; ; n++) {
    const id = n.toString(16).toUpperCase().padStart(4, "0");
    if (!order.includes(id) && id !== once) return id;
  }
}

/** Which device an entry means, whether it is there or not. */
export function deviceMeant(machine: UefiMachine, { path }: BootEntry): BootDevice | null {
  const mac = nodeOfKind(path, "mac")?.address;
  if (mac) return machine.devices.find((d) => d.mac === mac) ?? null;
  const hardware = hardwareOf(path);
  if (hardware) return machine.devices.find((d) => d.path && hardwareOf(d.path) === hardware) ?? null;
  const partition = nodeOfKind(path, "partition");
  if (!partition) return null;
  const carries = (d: BootDevice, key: string): boolean =>
    d.contents !== null &&
    d.contents !== "no medium" &&
    d.contents.volumes.some((v) => v.partition && partitionKey({ ...v.partition, number: 0 }) === key);
  const key = partitionKey({ ...partition, number: 0 });
  return machine.devices.find((d) => carries(d, key)) ?? null;
}

/** The list after the firmware has taken away and added its own entries, each at the end and at the lowest free number. */
export function listOf(machine: UefiMachine, oracle: Oracle): List {
  const entries = new Map(machine.entries.map((e) => [e.id, e]));
  let order = (machine.order ?? []).filter((id) => entries.has(id));
  const removed: Removed[] = [];
  const remove = (id: string, why: Removed["why"]) => {
    const after = machine.order?.[machine.order.indexOf(id) - 1] ?? "";
    removed.push({ id, entry: entries.get(id) ?? null, after, why });
    order = order.filter((o) => o !== id);
    entries.delete(id);
  };
  const add = (bare: Bare) => {
    const id = freeNumber(order, machine.once);
    entries.set(id, { ...bare, id });
    order = [...order, id];
  };
  const addProgram = (program: UefiMachine["programs"]["setup"], application: boolean) => {
    if (!program) return;
    const stands = order.some((id) =>
      entries.get(id)!.path.nodes.some((n) => n.kind === "firmware" && n.guid === program.guid),
    );
    if (!stands)
      add({ label: program.label, active: true, application, own: false, path: firmwarePath(program.guid) });
  };

  for (const id of (machine.order ?? []).filter((o) => !entries.has(o))) remove(id, "entry missing");
  addProgram(machine.programs.setup, true);
  if (machine.devices.length > 0 && oracle.ask("own entries", true)) {
    const wanted = devicesInOrder(machine, oracle).flatMap(entriesFor);
    const keys = new Set(wanted.map((e) => pathKey(e.path)));
    for (const id of order.filter((o) => entries.get(o)!.own && !keys.has(pathKey(entries.get(o)!.path))))
      remove(id, "entry removed");
    const standing = new Set(
      order
        .map((id) => entries.get(id)!)
        .filter((e) => e.own)
        .map((e) => pathKey(e.path)),
    );
    for (const bare of wanted.filter((e) => !standing.has(pathKey(e.path)))) add(bare);
  }
  addProgram(machine.programs.shell, false);
  if (machine.emulatorOrder) {
    const { kept, dropped } = emulated(machine, machine.emulatorOrder, order, entries, oracle);
    for (const id of dropped) remove(id, "entry dropped");
    order = kept;
  }
  return { entries, order, removed };
}

/** An emulator's order of devices: their entries first; what means another device that is there is dropped. */
function emulated(
  machine: UefiMachine,
  devices: readonly string[],
  order: readonly string[],
  entries: ReadonlyMap<string, BootEntry>,
  oracle: Oracle,
): { kept: string[]; dropped: string[] } {
  const meant = new Map(order.map((id) => [id, deviceMeant(machine, entries.get(id)!)]));
  const first = devices.flatMap((d) => order.filter((id) => meant.get(id)?.id === d));
  const rest = order.filter((id) => !first.includes(id));
  const dropped = rest.filter((id) => {
    const device = meant.get(id);
    return device && isUsable(device, oracle);
  });
  return { kept: [...first, ...rest.filter((id) => !dropped.includes(id))], dropped };
}
