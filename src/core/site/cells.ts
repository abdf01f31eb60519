import { addressSortKey, isAddress, sourceProblem } from "../network";
import { parameterNameProblem, parameterValueProblem, type Parameter } from "../parameter";
import { fail, ok, type Result } from "../result";
import type { Site } from "./site";

type Segment = Site["segments"][number];

/** What stands in a cell: the part of its row that it gives, or what is wrong with it. */
export type CellRead<Row> = { value: Partial<Row> } | { problem: string };

/** A column of a list that people type: how a row is shown in it, and how what is typed into it is read. */
export interface Cell<Row> {
  title: string;
  example: string;
  /** All that can stand in it; any text when left out. */
  choices?: readonly string[];
  show: (row: Row) => string;
  read: (text: string) => CellRead<Row>;
}

/** The columns of a list, and what may be wrong with a row whose cells all fit. */
export interface CellRow<Row> {
  cells: readonly Cell<Row>[];
  check?: (row: Row) => string | null;
}

const MAC = /^([0-9a-f]{2}[:-]){5}[0-9a-f]{2}$/i;

/** The MAC that a text is, as it is kept; null for any other text. */
export const macOf = (text: string): string | null =>
  MAC.test(text) ? text.toLowerCase().replaceAll("-", ":") : null;

const address = <Row>(
  title: string,
  example: string,
  show: (row: Row) => string,
  give: (a: string) => Partial<Row>,
) => ({
  ...{ title, example, show },
  read: (text: string): CellRead<Row> =>
    isAddress(text) ? { value: give(text) } : { problem: `"${text.slice(0, 60)}" is not an address` },
});

/** What a DHCP server gives to one network card. */
export const RESERVATION: CellRow<Segment["reservations"][number]> = {
  cells: [
    {
      ...{ title: "MAC", example: "02:61:0a:00:00:09", show: (r) => r.mac },
      read(text) {
        const mac = macOf(text);
        return mac ? { value: { mac } } : { problem: "a MAC has six pairs, for example 02:61:0a:00:00:09" };
      },
    },
    address(
      "Address",
      "10.61.10.9",
      (r) => r.address,
      (a) => ({ address: a }),
    ),
    {
      ...{ title: "Name", example: "rack A power strip", show: (r) => r.name },
      read: (text) => ({ value: { name: text || "unnamed" } }),
    },
  ],
};

/** The addresses that a DHCP server hands out, first and last. */
export const RANGE: CellRow<Segment["dhcp"][number]> = {
  cells: [
    address(
      "From",
      "10.61.10.100",
      (r) => r.from,
      (from) => ({ from }),
    ),
    address(
      "To",
      "10.61.10.199",
      (r) => r.to,
      (to) => ({ to }),
    ),
  ],
  check: ({ from, to }) => {
    if (from.includes(":") !== to.includes(":"))
      return "one is an IPv4 address and the other an IPv6 address";
    return (addressSortKey(from) ?? "") > (addressSortKey(to) ?? "")
      ? "the last address is below the first"
      : null;
  },
};

/** A circuit with the load that the site's own electrician allows on it. */
export const CIRCUIT: CellRow<Site["circuits"][number]> = {
  cells: [
    {
      ...{ title: "Circuit", example: "A1", show: (c) => c.name },
      read: (text) => (text === "" ? { problem: "a circuit needs a name" } : { value: { name: text } }),
    },
    {
      ...{ title: "Limit, W", example: "2300", show: (c) => String(c.limitWatts) },
      read: (text) => {
        const limitWatts = /^\d+([.,]\d+)?\s*W?$/i.test(text) ? Number.parseFloat(text.replace(",", ".")) : 0;
        return limitWatts > 0
          ? { value: { limitWatts } }
          : { problem: "a number of watts above 0, for example 2300" };
      },
    },
  ],
};

export const SOURCE: CellRow<Site["sources"][number]> = {
  cells: [
    {
      ...{ title: "OS family", example: "lowland-server", show: (s) => s.family },
      read: (text) =>
        /^[a-z0-9-]+$/.test(text)
          ? { value: { family: text } }
          : { problem: "the key of an OS profile, for example lowland-server" },
    },
    {
      ...{ title: "Package source", example: "http://mirror.works.example/os/", show: (s) => s.url },
      read: (text) => {
        const problem = text === "" ? "an address is missing" : sourceProblem(text);
        return problem === null ? { value: { url: text } } : { problem };
      },
    },
  ],
};

/** A value that commands and the words of a kernel may name; a secret has none here. */
export const PARAMETER: CellRow<Parameter> = {
  cells: [
    {
      ...{ title: "Name", example: "console", show: (p) => p.name },
      read(text) {
        const problem = parameterNameProblem(text);
        return problem === null ? { value: { name: text } } : { problem };
      },
    },
    {
      ...{ title: "Value", example: "ttyS1,115200n8", show: (p) => p.value },
      read(text) {
        const problem = parameterValueProblem(text);
        return problem === null ? { value: { value: text } } : { problem };
      },
    },
    {
      ...{ title: "Secret", example: "no", choices: ["yes", "no"], show: (p) => (p.isSecret ? "yes" : "no") },
      read: (text) =>
        /^(|yes|no)$/i.test(text)
          ? { value: { isSecret: /^yes$/i.test(text) } }
          : { problem: "yes for a secret (its value is stored encrypted for each sheet), or no" },
    },
  ],
  check: ({ isSecret, value }) =>
    isSecret && value !== ""
      ? "a secret has no value here: store it for each sheet, on its Passwords page"
      : null,
};

/** Addresses parted by commas or blanks; every one that is none is a problem that quotes it. */
export function parseAddresses(text: string): Result<string[]> {
  const entries = text.split(/[\s,]+/).filter(Boolean);
  const wrong = entries.filter((e) => !isAddress(e));
  return wrong.length > 0
    ? fail(...wrong.map((e) => ({ message: `"${e.slice(0, 60)}": is not an address` })))
    : ok(entries);
}
