import Papa from "papaparse";
import { isAddress } from "../address";
import { isMac } from "../interface";
import { MOST_LINES, notUnderstood, type NetworkReader, type NetworkRow } from "./row";

/** Headings under which people keep these columns. */
const HEADINGS: Record<"address" | "mac" | "name", RegExp> = {
  address: /^(ip|ipv[46]|address|ip[ _-]?address|adresse)$/i,
  mac: /^(mac|hw|hardware|ethernet|mac[ _-]?address)$/i,
  name: /^(name|host|host[ _-]?name|device|what|description)$/i,
};

type Columns = Record<keyof typeof HEADINGS, number>;

const columnsOf = (head: readonly string[]): Columns => ({
  address: head.findIndex((h) => HEADINGS.address.test(h.trim())),
  mac: head.findIndex((h) => HEADINGS.mac.test(h.trim())),
  name: head.findIndex((h) => HEADINGS.name.test(h.trim())),
});

const parsed = (text: string, preview: number): string[][] =>
  Papa.parse<string[]>(text.replace(/^\uFEFF/, ""), { preview, skipEmptyLines: false }).data;

function row(
  cells: readonly string[],
  { address: a, mac: m, name: n }: Columns,
  line: number,
): NetworkRow | string {
  const cell = (i: number): string => (i < 0 ? "" : (cells[i] ?? "").trim());
  const [address, typed, name] = [cell(a), cell(m).toLowerCase().replaceAll("-", ":"), cell(n)];
  if (isAddress(name) && !isAddress(address)) return `"${name}" is an address, in the column of names`;
  if (!isAddress(address))
    return address === "" ? "no address" : `"${address.slice(0, 60)}" is not an address`;
  if (typed !== "" && !isMac(typed)) return `"${typed.slice(0, 60)}" is not a MAC`;
  if (typed !== "") return { kind: "reservation", line, mac: typed, address, name };
  return name === "" ? "neither a MAC nor a name" : { kind: "host", line, address, name };
}

/** A spreadsheet of addresses: a heading names the columns of the address, the MAC and the name. */
export const CSV: NetworkReader = {
  format: "spreadsheet",
  recognises: (text) => {
    const { address, mac, name } = columnsOf(parsed(text.slice(0, 4096), 1)[0] ?? []);
    return address >= 0 && (mac >= 0 || name >= 0);
  },
  read(text) {
    const [head = [], ...cells] = parsed(text, MOST_LINES);
    const columns = columnsOf(head);
    const rows: NetworkRow[] = [];
    const problems: ReturnType<NetworkReader["read"]>["problems"] = [];
    cells.forEach((own, i) => {
      if (own.every((c) => c.trim() === "")) return;
      const read = row(own, columns, i + 2);
      if (typeof read === "string") problems.push(notUnderstood(i + 2, own.join(", "), read));
      else rows.push(read);
    });
    return { rows, problems };
  },
};
