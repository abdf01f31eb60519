import type { PathNode, PlaceNode } from "./node";

type Args = readonly string[];

/** Numbers stand in device paths as 0x1F, 1f after 0x only, or plain decimals; null where it is none. */
function numberOf(text: string | undefined): number | null {
  const value = text?.trim() ?? "";
  return /^(0x[0-9a-f]+|\d+)$/i.test(value) ? Number(value) : null;
}
const orZero = (text: string | undefined): number => numberOf(text) ?? 0;
const guidOf = (text: string | undefined): string => (text ?? "").trim().toLowerCase();

/** A disk signature is a number that some programs write with 0x and some without. */
const signatureOf = (scheme: string, text: string): string =>
  scheme === "MBR" ? text.trim().toLowerCase().replace(/^0x/, "").padStart(8, "0") : guidOf(text);

const place =
  (bus: PlaceNode["bus"]) =>
  (args: Args): PathNode => {
    const numbers = args.map(numberOf);
    const plain = numbers.filter((n) => n !== null);
    return { kind: "place", bus, numbers: plain, rest: args.filter((_, i) => numbers[i] === null).join(",") };
  };

function partition([number, scheme = "", signature = "", start, sectors]: Args): PathNode {
  const known = scheme.trim().toUpperCase();
  return {
    kind: "partition",
    number: orZero(number),
    scheme: known === "GPT" || known === "MBR" ? known : "other",
    signature: signatureOf(known, signature),
    start: numberOf(start),
    sectors: numberOf(sectors),
  };
}

const vendor =
  (of: "hardware" | "messaging" | "media") =>
  ([guid, ...data]: Args): PathNode => ({ kind: "vendor", of, guid: guidOf(guid), data: data.join(",") });

const usbClass = ([maker, product, subclass]: Args): PathNode => ({
  kind: "usb class",
  ...{ maker: orZero(maker), product: orZero(product), subclass: orZero(subclass) },
});

/** Every node that this reader knows, by its name in the text form of the UEFI specification, section 10.6. */
const NODES: Readonly<Record<string, (args: Args) => PathNode>> = {
  pciroot: place("root"),
  pcieroot: place("root"),
  acpi: place("root"),
  pci: place("pci"),
  sata: place("sata"),
  ata: place("ata"),
  nvme: place("nvme"),
  usb: place("usb"),
  scsi: place("scsi"),
  sas: place("sas"),
  sasex: place("sas"),
  fibre: place("fibre"),
  fibreex: place("fibre"),
  iscsi: place("iscsi"),
  emmc: place("card"),
  sd: place("card"),
  ctrl: place("unit"),
  unit: place("unit"),
  hd: partition,
  cdrom: ([entry]) => ({ kind: "boot image", entry: orZero(entry) }),
  file: (args) => ({ kind: "file", path: args.join(",") }),
  mac: ([address = ""]) => ({ kind: "mac", address: address.toLowerCase().replaceAll(":", "").slice(0, 12) }),
  ipv4: () => ({ kind: "ip", version: 4 }),
  ipv6: () => ({ kind: "ip", version: 6 }),
  uri: (args) => ({ kind: "uri", uri: args.join(",") }),
  usbclass: usbClass,
  usbmassstorage: usbClass,
  usbwwid: ([maker, product, , serial = ""]) => ({
    kind: "usb serial",
    ...{ maker: orZero(maker), product: orZero(product), serial: serial.replace(/^"|"$/g, "") },
  }),
  fv: ([guid]) => ({ kind: "firmware", volume: true, guid: guidOf(guid) }),
  fvvol: ([guid]) => ({ kind: "firmware", volume: true, guid: guidOf(guid) }),
  fvfile: ([guid]) => ({ kind: "firmware", volume: false, guid: guidOf(guid) }),
  venhw: vendor("hardware"),
  venmsg: vendor("messaging"),
  venmedia: vendor("media"),
  bbs: ([type = "", ...words]) => ({ kind: "legacy", type: type.toLowerCase(), words: words.join(",") }),
  vlan: ([id]) => ({ kind: "vlan", id: orZero(id) }),
};

/** The end of the brackets that open at `from`; -1 when they never close. */
function closing(text: string, from: number): number {
  let depth = 0;
  for (let i = from; i < text.length; i++) {
    if (text[i] === "(") depth++;
    else if (text[i] === ")" && --depth === 0) return i;
  }
  return -1;
}

/** A device path as text, understood: its nodes, the data that stood behind it, and what could not be read. */
export interface DevicePath {
  nodes: readonly PathNode[];
  /** The places at its head as one text that two paths to the same hardware share; "" where there are none. */
  hardware: string;
  /** The numbers of all its places: firmware walks its buses in their order. */
  numbers: readonly number[];
  /** Optional data of the entry, as far as it can be printed. */
  data: string;
  /** What is broken in it, with its place; null when nothing is. */
  fault: { at: number; text: string } | null;
}

const isPlace = (node: PathNode): node is PlaceNode => node.kind === "place";

/** A path of nodes; what is compared often is worked out here, once. */
export function pathOf(nodes: readonly PathNode[], data = "", fault: DevicePath["fault"] = null): DevicePath {
  const end = nodes.findIndex((n) => !isPlace(n));
  const head = (end === -1 ? nodes : nodes.slice(0, end)).filter(isPlace);
  return {
    ...{ nodes, data, fault },
    hardware: head.map(placeText).join("/"),
    numbers: nodes.filter(isPlace).flatMap((n) => n.numbers),
  };
}

/** A name space is told by its number; its EUI-64 is printed in two ways. */
export const placeText = ({ bus, numbers, rest }: PlaceNode): string =>
  `${bus}:${numbers.join(".")}${rest && bus !== "nvme" ? `:${rest}` : ""}`;

const NAME = /^([A-Za-z][A-Za-z0-9]*)\(/;
/** A file that stands in a path without brackets; what follows the program's name is the entry's data. */
const BARE_FILE = /^\\[^\t]*?\.efi|^\\[^\t]*/i;

/**
 * Reads a device path as `efibootmgr -v` prints it. It never throws: where it cannot go on it says so in `fault`, and what
 * stood before is kept.
 */
export function parseDevicePath(text: string): DevicePath {
  const nodes: PathNode[] = [];
  let at = 0;
  const ended = (data: string, fault: DevicePath["fault"] = null): DevicePath => pathOf(nodes, data, fault);
  for (;;) {
    const rest = text.slice(at);
    const bare = BARE_FILE.exec(rest)?.[0];
    if (bare !== undefined) {
      nodes.push({ kind: "file", path: bare });
      return ended(text.slice(at + bare.length));
    }
    const name = NAME.exec(rest)?.[1];
    if (name === undefined) return ended("", { at, text: rest.slice(0, 40) });
    const open = at + name.length;
    const close = closing(text, open);
    if (close === -1) return ended("", { at, text: rest.slice(0, 40) });
    nodes.push(nodeOf(name, text.slice(open + 1, close), text.slice(at, close + 1)));
    at = close + 1;
    if (text[at] !== "/") return ended(text.slice(at));
    at++;
  }
}

function nodeOf(name: string, inside: string, text: string): PathNode {
  const read = NODES[name.toLowerCase()];
  return read ? read(inside.split(",")) : { kind: "other", text };
}
