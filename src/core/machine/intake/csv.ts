import Papa from "papaparse";
import { fail, ok, type Problem, type Result } from "../../result";
import { openLineOf, own } from "../../text";
import { parseByteSize } from "../../units";

/** One machine of a list: what a spreadsheet of machines usually holds. */
export interface ListedMachine {
  line: number;
  name: string;
  site: string;
  maker: string | null;
  model: string | null;
  serial: string | null;
  assetTag: string | null;
  place: string | null;
  role: string | null;
  controller: string | null;
  macs: string[];
  memoryBytes: number | null;
  cores: number | null;
  notes: string | null;
}

/** Columns by their own names and by others that such lists use. Computed columns of Derrick's own list are passed over. */
const COLUMNS: Record<string, keyof ListedMachine | "passed over"> = {
  name: "name",
  machine: "name",
  "host name": "name",
  hostname: "name",
  host: "name",
  site: "site",
  location: "site",
  maker: "maker",
  vendor: "maker",
  manufacturer: "maker",
  model: "model",
  "product name": "model",
  serial: "serial",
  "serial number": "serial",
  sn: "serial",
  asset: "assetTag",
  "asset tag": "assetTag",
  "asset number": "assetTag",
  place: "place",
  rack: "place",
  position: "place",
  role: "role",
  use: "role",
  controller: "controller",
  "controller address": "controller",
  "management address": "controller",
  macs: "macs",
  mac: "macs",
  "mac address": "macs",
  "mac addresses": "macs",
  memory: "memoryBytes",
  cores: "cores",
  notes: "notes",
  remarks: "notes",
  drives: "passed over",
  ports: "passed over",
  becoming: "passed over",
  "last read": "passed over",
  health: "passed over",
};

const MAC = /^([0-9a-f]{2}[:-]){5}[0-9a-f]{2}$/i;
const clean = (value: string | undefined): string =>
  unsafe(value ?? "")
    .replace(/\p{Cc}/gu, " ")
    .trim()
    .slice(0, 400);

/** Whether a text is such a list: a first line with a name column and at least one more that is known. */
export function looksLikeMachineList(text: string): boolean {
  const first = text.replace(/^\uFEFF/, "").split(/\r?\n/, 1)[0] ?? "";
  const names = first.split(/[,;\t]/).map((c) => clean(c).replace(/^"|"$/g, "").toLowerCase());
  return (
    names.length > 1 &&
    names.filter((n) => own(COLUMNS, n)).length >= 2 &&
    names.some((n) => own(COLUMNS, n) === "name")
  );
}

/**
 * Reads a list of machines (comma, semicolon or tab; header line needed). Problems name the line; a bad cell spoils its
 * row and no other. Columns that are not known are warned about and left.
 */
export function parseMachineList(text: string): Result<ListedMachine[]> {
  const openLine = openLineOf(text);
  const read = Papa.parse<string[]>(text.replace(/^\uFEFF/, ""), { skipEmptyLines: false });
  const [header, ...rows] = read.data;
  if (!header || !looksLikeMachineList(text))
    return fail({
      message: 'a list of machines begins with a line of column names, one of them "name"',
      line: 1,
    });
  const keys = header.map((h) => own(COLUMNS, clean(h).toLowerCase()));
  const warnings: Problem[] = header
    .filter((h, i) => keys[i] === undefined && clean(h) !== "")
    .map((h) => ({ message: `unknown column "${clean(h)}" is ignored`, line: 1 }));
  for (const error of read.errors.slice(0, 10))
    warnings.push({ message: error.message, line: (error.row ?? 0) + 1 });
  const machines: ListedMachine[] = [];
  const problems: Problem[] = [];
  rows.forEach((cells, i) => {
    if (cells.every((c) => clean(c) === "")) return;
    const line = i + 2;
    if (i === rows.length - 1 && openLine !== null) {
      problems.push({
        message: "this line has no end: the list may be truncated here, and its last value incomplete",
        line,
      });
      return;
    }
    const row = toMachine(cells, keys, line);
    if (typeof row === "string") problems.push({ message: row, line });
    else machines.push(row);
  });
  const twice = machines.filter(
    (m, i) => machines.findIndex((o) => o.name === m.name && o.site === m.site) !== i,
  );
  problems.push(...twice.map((m) => ({ message: `${m.name} is in the list twice`, line: m.line })));
  const sameSerial = machines.filter(
    (m, i) => m.serial && machines.findIndex((o) => o.serial === m.serial) !== i,
  );
  warnings.push(
    ...sameSerial.map((m) => ({
      message: `the serial number ${m.serial} is in the list twice`,
      line: m.line,
    })),
  );
  return problems.length > 0 && machines.length === 0
    ? fail(...problems)
    : ok(
        machines.filter((m) => !twice.includes(m)),
        [...problems, ...warnings],
      );
}

function toMachine(
  cells: string[],
  keys: (keyof ListedMachine | "passed over" | undefined)[],
  line: number,
): ListedMachine | string {
  const get = (key: keyof ListedMachine): string => clean(cells[keys.indexOf(key)]);
  if (get("name") === "") return "this line has no name";
  const macs = get("macs")
    .split(/[\s,;|]+/)
    .filter(Boolean);
  const bad = macs.find((m) => !MAC.test(m));
  if (bad) return `"${bad}" is not a MAC address`;
  const memory = get("memoryBytes") === "" ? null : parseByteSize(get("memoryBytes"));
  if (memory && !memory.ok) return memory.problems[0]?.message ?? "the memory size is invalid";
  const cores = get("cores");
  if (cores !== "" && !/^\d{1,4}$/.test(cores)) return `"${cores}" is not a number of cores`;
  const word = (key: keyof ListedMachine): string | null => get(key) || null;
  return {
    line,
    name: get("name"),
    site: get("site"),
    maker: word("maker"),
    model: word("model"),
    serial: word("serial"),
    assetTag: word("assetTag"),
    place: word("place"),
    role: word("role"),
    controller: word("controller"),
    macs: macs.map((m) => m.toLowerCase().replaceAll("-", ":")),
    memoryBytes: memory ? memory.value : null,
    cores: cores === "" ? null : Number(cores),
    notes: word("notes"),
  };
}

/**
 * A cell that a spreadsheet would read as a formula is written as text, with a quote in front; so is one that begins with a
 * quote, so that reading takes away what writing has put there and nothing else.
 */
const safe = (value: string): string => (/^[=+\-@'\t\r]/.test(value) ? `'${value}` : value);

/** A cell as it was before `safe`. */
const unsafe = (value: string): string => (/^'[=+\-@'\t\r]/.test(value) ? value.slice(1) : value);

/** Writes rows as CSV (comma, quoted where needed, CRLF as RFC 4180 asks). */
export const writeCsv = (columns: readonly string[], rows: readonly (readonly string[])[]): string =>
  `${Papa.unparse({ fields: [...columns], data: rows.map((r) => r.map(safe)) }, { newline: "\r\n" })}\r\n`;
