import type { MachineDocument } from "../facts/document";
import type { Drive } from "../facts/drive";
import type { Facts, Port } from "../facts/facts";
import type { BayGroup } from "../facts/layout-schema";

/** One bay in the drawing: its name as people say it, its place in the block, and the drive in it. */
export interface Bay {
  name: string;
  column: number;
  row: number;
  drive: Drive | null;
}

export interface DrawnGroup extends BayGroup {
  bays: Bay[];
  /** False when the block was made up from the bays that drives name: empty bays are not known then. */
  typed: boolean;
}

/** A card or onboard block at the rear: the ports of one PCI device together. */
export interface DrawnCard {
  name: string;
  place: string;
  ports: Port[];
}

export interface MachineDrawing {
  /** Height in a rack; null for a machine that stands on a shelf or desk. */
  rackUnits: number | null;
  front: DrawnGroup[];
  rear: DrawnGroup[];
  inside: DrawnGroup[];
  cards: DrawnCard[];
  /** Drives whose bay nobody has named. */
  unplaced: Drive[];
  /** Sets that a controller shows as drives: they sit in no bay. */
  shown: Drive[];
  supplies: Facts["powerSupplies"];
  controllers: Facts["storageControllers"];
}

/** Name of the n-th bay of a block: "7", "rear 0"; a single bay with a name has no number. */
export const bayName = (group: BayGroup, n: number): string =>
  group.columns * group.rows === 1 && group.prefix
    ? group.prefix
    : `${group.prefix ? `${group.prefix} ` : ""}${group.first + n}`;

const present = (facts: Facts): Drive[] => facts.drives.filter((d) => d.missingSince === null);

/** Where everything sits, from the layout that was typed and the bays that the facts name. */
export function drawMachine({ facts, typed }: MachineDocument): MachineDrawing {
  const drives = present(facts);
  const left = new Set(drives);
  const typedGroups = typed.bays.map((g) => drawGroup(g, drives, left, true));
  const named = [...left].filter((d) => d.bay !== null);
  const groups = [...typedGroups, ...madeUpGroups(named).map((g) => drawGroup(g, drives, left, false))];
  const on = (face: BayGroup["face"]): DrawnGroup[] => groups.filter((g) => g.face === face);
  return {
    rackUnits: facts.chassis?.rackUnits ?? (/rack/i.test(facts.chassis?.form ?? "") ? 1 : null),
    front: on("front"),
    rear: on("rear"),
    inside: on("inside"),
    cards: cardsOf(facts),
    unplaced: [...left].filter((d) => d.presentedBy === null),
    shown: [...left].filter((d) => d.presentedBy !== null),
    supplies: facts.powerSupplies,
    controllers: facts.storageControllers,
  };
}

function drawGroup(group: BayGroup, drives: Drive[], left: Set<Drive>, typed: boolean): DrawnGroup {
  const bays = Array.from({ length: group.columns * group.rows }, (_, n): Bay => {
    const name = bayName(group, n);
    const drive = drives.find((d) => d.bay === name && left.has(d)) ?? null;
    if (drive) left.delete(drive);
    const across = group.order === "rows";
    return {
      name,
      column: across ? n % group.columns : Math.floor(n / group.rows),
      row: across ? Math.floor(n / group.columns) : n % group.rows,
      drive,
    };
  });
  return { ...group, bays, typed };
}

const NUMBERED = /^(.*?)\s*(\d+)$/;

/** Blocks that hold just the bays which drives name; what has no number is a bay of its own inside the machine. */
function madeUpGroups(drives: readonly Drive[]): BayGroup[] {
  const byPrefix = new Map<string, number[]>();
  for (const { bay } of drives) {
    const match = NUMBERED.exec(bay ?? "");
    const key = match ? (match[1] ?? "") : `=${bay ?? ""}`;
    byPrefix.set(key, [...(byPrefix.get(key) ?? []), Number(match?.[2] ?? 0)]);
  }
  return [...byPrefix].map(([prefix, numbers]): BayGroup => {
    if (prefix.startsWith("="))
      return {
        title: prefix.slice(1).slice(0, 40),
        face: "inside",
        size: "card",
        columns: 1,
        rows: 1,
        first: 0,
        order: "rows",
        prefix: prefix.slice(1).slice(0, 30),
      };
    const first = Math.min(...numbers);
    const count = Math.min(60, Math.max(...numbers) - first + 1);
    const members = drives.filter((d) => NUMBERED.exec(d.bay ?? "")?.[1] === prefix);
    const large = members.some((d) => d.media === "spinning" && d.sizeBytes > 3e12);
    const perRow = large ? 4 : 8;
    return {
      title: prefix === "" ? "Bays" : prefix.slice(0, 40),
      face: prefix.startsWith("rear") ? "rear" : "front",
      size: large ? "large" : "small",
      columns: Math.min(count, perRow),
      rows: Math.max(1, Math.ceil(count / perRow)),
      first,
      order: "rows",
      // A block of one is named by its prefix alone.
      prefix: (count === 1 && prefix !== "" ? `${prefix} ${first}` : prefix).slice(0, 30),
    };
  });
}

/** Ports grouped by the card that they are functions of (bus and device of the PCI place), in bus order. */
function cardsOf(facts: Facts): DrawnCard[] {
  const cards = new Map<string, DrawnCard>();
  const sorted = [...facts.ports].sort((a, b) => (a.pci ?? "~").localeCompare(b.pci ?? "~"));
  for (const port of sorted) {
    const device = facts.pci.find((p) => p.slot === port.pci);
    const key = port.pci?.replace(/\.\d$/, "") ?? port.mac;
    const place = device?.place ?? (/^(eno|em)\d/.test(port.seenAs) ? "onboard" : "");
    const id = place || key;
    const card = cards.get(id) ?? {
      name: device?.device ?? (port.kind === "wireless" ? "wireless" : "network"),
      place,
      ports: [],
    };
    card.ports.push(port);
    cards.set(id, card);
  }
  return [...cards.values()];
}
