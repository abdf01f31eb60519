import {
  DEVICE_KINDS,
  deviceSchema,
  endKey,
  formatVlans,
  isAddress,
  LOG_INS,
  parseVlans,
  portNames,
  type Cable,
  type CableEnd,
  type Device,
  type SwitchPort,
} from "../network";
import { macOf, type Cell, type CellRead, type CellRow } from "./cells";

/** The part of a row that one cell gives; each column is only made for fields that take what it reads. */
const part = <Row>(key: keyof Row, value: string | number | null): Partial<Row> =>
  ({ [key]: value }) as unknown as Partial<Row>;

const plain = <Row, K extends keyof Row & string>(title: string, key: K, example = ""): Cell<Row> => ({
  ...{ title, example, show: (row: Row) => String(row[key] ?? "") },
  read: (text) => ({ value: part<Row>(key, text) }),
});

const chosen = <Row, K extends keyof Row & string>(
  title: string,
  key: K,
  choices: readonly (Row[K] & string)[],
): Cell<Row> => ({
  ...{ title, choices, example: choices[0] ?? "", show: (row: Row) => String(row[key]) },
  read(text): CellRead<Row> {
    const value = text === "" ? choices[0] : choices.find((c) => c === text.toLowerCase());
    return value === undefined
      ? { problem: `enter one of: ${choices.join(", ")}` }
      : { value: part<Row>(key, value) };
  },
});

const whole = <Row, K extends keyof Row & string>(
  title: string,
  key: K,
  { least, most, empty, example }: { least: number; most: number; empty: number | null; example: string },
): Cell<Row> => ({
  ...{ title, example, show: (row: Row) => (row[key] === empty ? "" : String(row[key])) },
  read(text): CellRead<Row> {
    const value = text === "" ? empty : /^\d{1,7}$/.test(text) ? Number(text) : NaN;
    const fits = value === empty || (value !== null && value >= least && value <= most);
    return fits
      ? { value: part<Row>(key, value) }
      : { problem: `a whole number from ${least} to ${most}, or nothing` };
  },
});

/** What is typed of a thing that is no machine; its id and its ports are kept beside. */
export type DeviceRow = Omit<Device, "id" | "ports">;

export const DEVICE: CellRow<DeviceRow> = {
  cells: [
    {
      ...plain<DeviceRow, "name">("Name", "name", "wrk-sw1"),
      read: (text) => (text === "" ? { problem: "enter a name" } : { value: { name: text } }),
    },
    chosen<DeviceRow, "kind">("Kind", "kind", DEVICE_KINDS),
    {
      ...plain<DeviceRow, "address">("Address", "address", "10.61.10.4"),
      read: (text) =>
        text === "" || isAddress(text)
          ? { value: { address: text } }
          : { problem: `"${text.slice(0, 60)}" is not an address` },
    },
    plain<DeviceRow, "place">("Location", "place", "rack A, 24"),
    chosen<DeviceRow, "logIn">("Login", "logIn", LOG_INS),
    whole<DeviceRow, "portCount">("Ports", "portCount", { least: 0, most: 512, empty: 0, example: "24" }),
    whole<DeviceRow, "mtu">("MTU", "mtu", { least: 576, most: 9216, empty: null, example: "1500" }),
  ],
};

/**
 * Rows that were typed as the things that they are: one that kept its name keeps its id and its ports, one that stands where
 * a name has gone was renamed, and any other is new.
 */
export function devicesFrom(
  rows: readonly DeviceRow[],
  before: readonly Device[],
  newId: () => string,
): Device[] {
  const names = new Set(rows.map((r) => r.name));
  const used = new Set<string>();
  const take = (found: Device | undefined): Device | undefined =>
    found && !used.has(found.id) ? (used.add(found.id), found) : undefined;
  return rows.map((row, i) => {
    const renamed = rows.length >= before.length ? before[i] : undefined;
    const old =
      take(before.find((d) => d.name === row.name && !used.has(d.id))) ??
      take(renamed && !names.has(renamed.name) ? renamed : undefined);
    return deviceSchema.parse({ ports: [], ...old, ...row, id: old?.id ?? newId() });
  });
}

/** How the ports of a switch are set: a row may stand for a stretch of them, as "1-12". */
export const SWITCH_PORT: CellRow<SwitchPort> = {
  cells: [
    {
      ...plain<SwitchPort, "name">("Port", "name", "1-12"),
      read: (text) => (text === "" ? { problem: "enter a port" } : { value: { name: text } }),
    },
    chosen<SwitchPort, "mode">("Mode", "mode", ["access", "trunk"]),
    whole<SwitchPort, "native">("Native VLAN", "native", {
      least: 1,
      most: 4094,
      empty: null,
      example: "10",
    }),
    {
      ...plain<SwitchPort, "allowed">("Tagged VLANs", "allowed", "20,30-39"),
      read(text): CellRead<SwitchPort> {
        const read = parseVlans(text);
        return read.ok
          ? { value: { allowed: formatVlans(read.value) } }
          : { problem: read.problems[0]!.message };
      },
    },
    plain<SwitchPort, "group">("LAG", "group", "1"),
    {
      ...{ title: "LAG mode", example: "LACP", choices: ["LACP", "static LAG"] },
      show: (row) => (row.lacp ? "LACP" : "static LAG"),
      read: (text) => ({ value: { lacp: text !== "static LAG" } }),
    },
    whole<SwitchPort, "megabitsPerSecond">("Mbit/s", "megabitsPerSecond", {
      ...{ least: 1, most: 1_000_000, empty: null, example: "1000" },
    }),
  ],
  check: ({ mode, allowed }) =>
    mode === "access" && allowed !== "" ? "an access port has no tagged VLANs; a trunk has" : null,
};

/** Rows of a stretch of ports as one row for each; of two rows for one port the later stands. */
export function portsFrom(rows: readonly SwitchPort[]): SwitchPort[] {
  const each = rows.flatMap((row) => {
    const [, stem = "", from, to] = /^(.*?)(\d{1,3})-(\d{1,3})$/.exec(row.name) ?? [];
    const [first, last] = [Number(from), Number(to)];
    if (from === undefined || last < first || last - first >= 512) return [row];
    return Array.from({ length: last - first + 1 }, (_, i) => ({ ...row, name: `${stem}${first + i}` }));
  });
  return [...new Map(each.map((p) => [p.name, p])).values()];
}

/** A machine with its ports, as cables are planned to it. */
export interface WiredMachine {
  name: string;
  ports: readonly { mac: string; seenAs: string }[];
}

/** What a site's cables can end in. */
export interface Directory {
  devices: readonly Device[];
  machines: readonly WiredMachine[];
}

/** A cable as it is typed: by names. */
export interface CableRow {
  a: string;
  aPort: string;
  b: string;
  bPort: string;
  lengthMetres: number | null;
  label: string;
}

/** How an end is called; a MAC that no machine of the site has stands for itself. */
export function endNames({ devices, machines }: Directory, end: CableEnd): { of: string; port: string } {
  if ("device" in end) {
    const device = devices.find((d) => d.id === end.device);
    return { of: device?.name ?? "a deleted device", port: end.port };
  }
  for (const { name, ports } of machines) {
    const port = ports.find((p) => p.mac === end.mac);
    if (port) return { of: name, port: port.seenAs };
  }
  return { of: "machine", port: end.mac };
}

export const endWords = (directory: Directory, end: CableEnd): string => {
  const { of, port } = endNames(directory, end);
  return `${of} ${port}`;
};

/** The end that a name and a port are; a problem where there is none such. */
function endFrom(
  { devices, machines }: Directory,
  of: string,
  port: string,
): { end: CableEnd } | { problem: string } {
  const mac = macOf(port);
  if (mac) return { end: { mac } };
  const device = devices.find((d) => d.name === of);
  if (device) {
    const names = portNames(device);
    return names.length === 0 || names.includes(port)
      ? { end: { device: device.id, port } }
      : { problem: `${of} has no port ${port}: it has ${names.length}` };
  }
  const machine = machines.find((m) => m.name === of);
  if (!machine) return { problem: `nothing at this site has the name "${of.slice(0, 60)}"` };
  const own = machine.ports.find((p) => p.seenAs === port);
  return own
    ? { end: { mac: own.mac } }
    : {
        problem: `${of} has no port ${port}: it has ${machine.ports.map((p) => p.seenAs).join(", ") || "no collected ports"}`,
      };
}

/** "wrk-sw1 3" as an end: the last word is the port, what stands before it the name. */
export function endFromWords(directory: Directory, text: string): { value: CableEnd } | { problem: string } {
  const words = text.trim().split(/\s+/);
  const port = words.pop() ?? "";
  const read = endFrom(directory, words.join(" "), port);
  return "end" in read ? { value: read.end } : read;
}

/** The columns of the list of cables, for what a site has. */
export function cableCells(directory: Directory): CellRow<CableRow> {
  const named = <K extends keyof CableRow & string>(
    title: string,
    key: K,
    example: string,
  ): Cell<CableRow> => ({
    ...plain<CableRow, K>(title, key, example),
    read: (text) => (text === "" ? { problem: "enter both ends" } : { value: part<CableRow>(key, text) }),
  });
  return {
    cells: [
      named("From", "a", "wrk-hv1"),
      named("Port", "aPort", "eno1"),
      named("To", "b", "wrk-sw1"),
      named("Its port", "bPort", "3"),
      {
        ...{ title: "Metres", example: "2", show: (r) => String(r.lengthMetres ?? "") },
        read(text): CellRead<CableRow> {
          const metres = text === "" ? null : Number(text.replace(",", "."));
          return metres === null || (metres > 0 && metres <= 100_000)
            ? { value: { lengthMetres: metres } }
            : { problem: "a length in metres, for example 2.5" };
        },
      },
      plain<CableRow, "label">("Label", "label", "C-014"),
    ],
    check(row) {
      const [a, b] = [endFrom(directory, row.a, row.aPort), endFrom(directory, row.b, row.bPort)];
      if ("problem" in a) return a.problem;
      if ("problem" in b) return b.problem;
      return endKey(a.end) === endKey(b.end) ? "both ends are the same port" : null;
    },
  };
}

export const cableRows = (directory: Directory, cables: readonly Cable[]): CableRow[] =>
  cables.map(({ a, b, lengthMetres, label }) => {
    const [from, to] = [endNames(directory, a), endNames(directory, b)];
    return { a: from.of, aPort: from.port, b: to.of, bPort: to.port, lengthMetres, label };
  });

/** Rows that were read by `cableCells` as cables; one between the same ports keeps its id. */
export function cablesFrom(
  directory: Directory,
  rows: readonly CableRow[],
  before: readonly Cable[],
  newId: () => string,
): Cable[] {
  return rows.flatMap(({ lengthMetres, label, ...row }) => {
    const [a, b] = [endFrom(directory, row.a, row.aPort), endFrom(directory, row.b, row.bPort)];
    if ("problem" in a || "problem" in b) return [];
    const old = before.find((c) => endKey(c.a) === endKey(a.end) && endKey(c.b) === endKey(b.end));
    return [{ id: old?.id ?? newId(), a: a.end, b: b.end, lengthMetres, label }];
  });
}
