/** The kernel takes 15 characters and an end for the name of a port. */
export const MOST_NAME_BYTES = 15;
/** Higher onboard numbers are firmware's nonsense, and not taken. */
const MOST_ONBOARD = 16_383;

/** Where a port sits, as far as it was read; undefined is "not read", and null is "read, and there is none". */
export interface PortAt {
  kind: "ethernet" | "wireless";
  mac: string;
  /** Its MAC is its maker's; one that was made up gives no name. */
  isOwnMac?: boolean;
  /** "0000:3b:00.0" or "3b:00.0", in hexadecimal. */
  pci: string | null;
  /** The number that the firmware gives a port of the board. */
  onboard?: number | null;
  /** The hot-plug slot that the firmware tells for its own place. */
  slot?: number | null;
  /** Such a slot of the nearest bridge above it: several devices may hang there, so it names those with functions only. */
  bridgeSlot?: number | null;
  /** The device has more than one function. */
  isMulti?: boolean;
  /** What its driver calls it: "p0" of a card with several ports. */
  portName?: string | null;
  /** Which of several ports on one function it is. */
  devPort?: number;
}

/** What has to be so for a name to be the one: of what was not read, either may. */
export const NAME_CONDITIONS = {
  onboard: "the firmware numbers it as an onboard port",
  slot: "the firmware reports a hot-plug slot for its location",
  place: "its PCI location was not collected",
  single: "the device has one function",
  multi: "the device has several functions",
  portName: "its driver reports no port name",
} as const;
export type NameCondition = keyof typeof NAME_CONDITIONS;

/** A name that the installed system may give a port. */
export interface PortName {
  name: string;
  by: "onboard" | "slot" | "path" | "mac";
  /** What would have to be so, of what was not read; empty where all was. */
  when: NameCondition[];
  /** The kernel takes no name as long as this: the next one is used. */
  isTooLong: boolean;
}

/** A domain that a hypervisor or a hidden controller made up has five digits. */
const PCI = /^(?:([\da-f]{4,8}):)?([\da-f]{2}):([\da-f]{2})\.([0-7])$/i;
const TYPE = { ethernet: "en", wireless: "wl" } as const;

interface Place {
  domain: number;
  bus: number;
  device: number;
  fn: number;
}

function placeOf(pci: string): Place | null {
  const found = PCI.exec(pci);
  if (!found) return null;
  const [domain = 0, bus = 0, device = 0, fn = 0] = found.slice(1).map((hex = "0") => parseInt(hex, 16));
  return { domain, bus, device, fn };
}

interface Ending {
  text: string;
  when: NameCondition[];
}

/** Which port on its function it is. */
const portEnding = ({ portName, devPort = 0 }: PortAt): Ending => ({
  text: portName ? `n${portName}` : devPort > 0 ? `d${devPort}` : "",
  when: portName === undefined ? ["portName"] : [],
});

/** The end of a name: the function, where there are several, and the port on it. */
function endings({ fn }: Place, at: PortAt): Ending[] {
  const { isMulti } = at;
  const { text: port, when: unsaid } = portEnding(at);
  if (fn > 0 || isMulti === true) return [{ text: `f${fn}${port}`, when: unsaid }];
  if (isMulti === false) return [{ text: port, when: unsaid }];
  return [
    { text: port, when: ["single", ...unsaid] },
    { text: `f${fn}${port}`, when: ["multi", ...unsaid] },
  ];
}

/**
 * The names that a Linux with predictable names may give a port, in the order in which it takes the first that exists:
 * onboard, slot, path, MAC (systemd.net-naming-scheme(7), as of v252, and its default policy). Numbers of buses are decimal.
 * Without a place on the bus there is the name by the MAC only.
 */
export function predictPortNames(port: PortAt): PortName[] {
  const type = TYPE[port.kind];
  const place = port.pci === null ? null : placeOf(port.pci);
  const named = (name: string, by: PortName["by"], when: NameCondition[] = []): PortName => ({
    ...{ name, by, when },
    isTooLong: name.length > MOST_NAME_BYTES,
  });
  const names: PortName[] = [];
  const { onboard, slot, bridgeSlot } = port;
  if (typeof onboard === "number" && onboard > 0 && onboard <= MOST_ONBOARD)
    names.push(named(`${type}o${onboard}${portEnding(port).text}`, "onboard", portEnding(port).when));
  if (place) {
    const domain = place.domain > 0 ? `P${place.domain}` : "";
    const both = (head: string, by: PortName["by"]): PortName[] =>
      endings(place, port).map(({ text, when }) => named(`${type}${domain}${head}${text}`, by, when));
    if (typeof slot === "number" && slot > 0) names.push(...both(`s${slot}`, "slot"));
    else if (typeof bridgeSlot === "number" && bridgeSlot > 0)
      names.push(...both(`s${bridgeSlot}`, "slot").filter((n) => /f\d+(n.*|d\d+)?$/.test(n.name)));
    names.push(...both(`p${place.bus}s${place.device}`, "path"));
  }
  if (port.isOwnMac !== false)
    names.push(named(`${type}x${port.mac.replaceAll(":", "").toLowerCase()}`, "mac"));
  return names;
}

/** What was not read and would give a name that goes before the first of those that are known. */
export function unreadBefore({ onboard, slot }: PortAt): NameCondition[] {
  if (typeof onboard === "number") return [];
  return [
    ...(onboard === undefined ? (["onboard"] as const) : []),
    ...(slot === undefined ? (["slot"] as const) : []),
  ];
}
