import { comparePlaces, pathKey, pathOf, type DevicePath } from "../path";
import { deviceMeant, entriesFor, type Bare, type Known } from "./known";
import type { BootDevice, BootEntry, UefiMachine } from "./machine";
import type { Oracle } from "./questions";
import { isUsable } from "./visible";

const firmwarePath = (guid: string): DevicePath => pathOf([{ kind: "firmware", volume: false, guid }]);

/** All devices of which firmware makes entries, removable media first, then fixed drives, then ports; each as the buses go. */
export function devicesInOrder(machine: UefiMachine, oracle: Oracle): BootDevice[] {
  const { emulatorOrder } = machine;
  const usable = machine.devices.filter(
    (d) => isUsable(d, oracle) && (!emulatorOrder || emulatorOrder.includes(d.id)),
  );
  const places = (a: BootDevice, b: BootDevice): number =>
    a.path && b.path ? comparePlaces(a.path, b.path) : Number(!a.path) - Number(!b.path);
  const rank = (d: BootDevice): number => (d.kind === "network port" ? 2 : d.removable ? 0 : 1);
  const sorted = usable.toSorted((a, b) => rank(a) - rank(b) || places(a, b));
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
  /** Entries of devices that the firmware has put in by itself just now. */
  added: ReadonlySet<BootEntry>;
  /** What the firmware adds stands at the end; it is put there when somebody comes so far. */
  complete(oracle: Oracle): void;
}

/** The list while the firmware changes it. */
class Changing {
  readonly entries: Map<string, BootEntry>;
  order: string[];
  readonly removed: Removed[] = [];
  readonly added = new Set<BootEntry>();
  /** Below this number all are taken. */
  private free = 0;
  private isComplete = false;
  private readonly machine: UefiMachine;

  constructor(private readonly known: Known) {
    const { machine } = known;
    this.machine = machine;
    this.entries = new Map(machine.entries.map((e) => [e.id, e]));
    this.order = (machine.order ?? []).filter((id) => this.entries.has(id));
    for (const id of machine.order ?? []) if (!this.entries.has(id)) this.note(id, "entry missing");
  }

  get listed(): BootEntry[] {
    return this.order.map((id) => this.entries.get(id)!);
  }

  complete(oracle: Oracle): void {
    if (this.isComplete) return;
    this.isComplete = true;
    renewOwn(this, this.known, oracle);
    addProgram(this, this.machine.programs.shell, false);
  }

  private note(id: string, why: Removed["why"]): void {
    const { order } = this.machine;
    const after = order?.[order.indexOf(id) - 1] ?? "";
    this.removed.push({ id, entry: this.entries.get(id) ?? null, after, why });
  }

  remove({ id }: BootEntry, why: Removed["why"]): void {
    this.note(id, why);
    this.order = this.order.filter((o) => o !== id);
    this.entries.delete(id);
    this.free = 0;
  }

  /** At the end, with the lowest number that neither the order nor the one-time choice uses. */
  add(bare: Bare): void {
    let id = idOf(this.free);
    while (this.order.includes(id) || id === this.machine.once) id = idOf(++this.free);
    const { label, active, application, path, own } = bare;
    const entry = { id, label, active, application, path, own };
    this.entries.set(id, entry);
    this.order.push(id);
    if (own) this.added.add(entry);
  }
}

const idOf = (n: number): string => n.toString(16).toUpperCase().padStart(4, "0");

function addProgram(list: Changing, program: UefiMachine["programs"]["setup"], application: boolean): void {
  if (!program) return;
  const { label, guid } = program;
  const isIt = (e: BootEntry): boolean => e.path.nodes.some((n) => n.kind === "firmware" && n.guid === guid);
  if (!list.listed.some(isIt))
    list.add({ label, active: true, application, own: false, path: firmwarePath(guid) });
}

/** Entries of devices that are gone are taken away, those of devices without one added. */
function renewOwn(list: Changing, { machine, keys }: Known, oracle: Oracle): void {
  const wanted = devicesInOrder(machine, oracle).flatMap(entriesFor);
  if (keys.size === 0) return wanted.forEach((entry) => list.add(entry));
  const keyed = wanted.map((entry) => ({ entry, key: pathKey(entry.path) }));
  const wantedKeys = new Set(keyed.map((w) => w.key));
  for (const entry of list.listed)
    if (entry.own && !wantedKeys.has(keys.get(entry)!)) list.remove(entry, "entry removed");
  const standing = new Set(list.listed.filter((e) => e.own).map((e) => keys.get(e)));
  for (const { entry, key } of keyed) if (!standing.has(key)) list.add(entry);
}

/** The list after the firmware has taken away and added its own entries. */
export function listOf(known: Known, oracle: Oracle): List {
  const { machine } = known;
  const list = new Changing(known);
  addProgram(list, machine.programs.setup, true);
  // Nothing of the list is the firmware's own, so nothing of it is taken away: what is added can wait.
  const canWait = known.keys.size === 0 && machine.emulatorOrder === null;
  if (!canWait) list.complete(oracle);
  if (machine.emulatorOrder) emulated(list, known, machine.emulatorOrder, oracle);
  return list;
}

/** An emulator's order of devices: their entries first; what means another device that is there is dropped. */
function emulated(list: Changing, known: Known, devices: readonly string[], oracle: Oracle): void {
  const meant = new Map(list.listed.map((e) => [e, deviceMeant(known, e)]));
  const first = devices.flatMap((d) => list.listed.filter((e) => meant.get(e)?.id === d));
  const rest = list.listed.filter((e) => !first.includes(e));
  const isOther = (e: BootEntry): boolean => {
    const device = meant.get(e);
    return device != null && isUsable(device, oracle);
  };
  for (const entry of rest.filter(isOther)) list.remove(entry, "entry dropped");
  list.order = [...first, ...rest.filter((e) => !isOther(e))].map((e) => e.id);
}
