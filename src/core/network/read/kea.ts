import { z } from "zod";
import { parseJson } from "../../text";
import { isAddress } from "../address";
import { isMac } from "../interface";
import { notUnderstood, valueFinder, type NetworkReader, type NetworkRow, type NetworkReading } from "./row";

const word = z.string().max(400).optional().catch(undefined);
const subnet = z.object({
  pools: z
    .array(z.object({ pool: word }))
    .catch([])
    .default([]),
  reservations: z
    .array(z.object({ "hw-address": word, "ip-address": word, hostname: word }))
    .catch([])
    .default([]),
});
const tree = z.object({
  Dhcp4: z.object({
    subnet4: z.array(subnet).catch([]).default([]),
    "shared-networks": z
      .array(z.object({ subnet4: z.array(subnet).catch([]).default([]) }))
      .catch([])
      .default([]),
    reservations: subnet.shape.reservations,
  }),
});

/** Comments, which this server's JSON may have, as blanks: places stay what they are. One walk, whatever the text. */
function withoutComments(text: string): string {
  const parts: string[] = [];
  let [from, at] = [0, 0];
  const blank = (end: number): void => {
    parts.push(text.slice(from, at), text.slice(at, end).replace(/[^\n]/g, " "));
    from = at = end;
  };
  const after = (sign: string, start: number, none = text.length): number => {
    const found = text.indexOf(sign, start);
    return found < 0 ? none : found;
  };
  while (at < text.length) {
    const [sign, next] = [text[at], text[at + 1]];
    if (sign === '"') {
      at += 1;
      while (at < text.length && text[at] !== '"') at += text[at] === "\\" ? 2 : 1;
      at += 1;
    } else if (sign === "#" || (sign === "/" && next === "/")) blank(after("\n", at));
    else if (sign === "/" && next === "*") blank(Math.min(text.length, after("*/", at + 2) + 2));
    else at += 1;
  }
  return [...parts, text.slice(from)].join("");
}

function readKea(text: string): Pick<NetworkReading, "rows" | "problems"> {
  const parsed = parseJson(withoutComments(text));
  if (!parsed.ok) return { rows: [], problems: parsed.problems };
  const read = tree.safeParse(parsed.value);
  if (!read.success) return { rows: [], problems: [{ line: 1, message: "there is no Dhcp4 in it" }] };
  const { subnet4, "shared-networks": shared, reservations } = read.data.Dhcp4;
  const subnets = [...subnet4, ...shared.flatMap((s) => s.subnet4)];
  const rows: NetworkRow[] = [];
  const problems: NetworkReading["problems"] = [];
  const poolLine = valueFinder(text);
  const lineOf = valueFinder(text);
  for (const { pool = "" } of subnets.flatMap((s) => s.pools)) {
    const [from = "", to = ""] = pool.split("-").map((p) => p.trim());
    if (isAddress(from) && isAddress(to)) rows.push({ kind: "range", line: poolLine(pool), from, to });
    else problems.push(notUnderstood(poolLine(pool), pool, "a pool is written as first and last address"));
  }
  for (const r of [...reservations, ...subnets.flatMap((s) => s.reservations)]) {
    const [mac, address] = [(r["hw-address"] ?? "").toLowerCase(), r["ip-address"] ?? ""];
    const line = lineOf(r["hw-address"] ?? address);
    if (isMac(mac) && isAddress(address))
      rows.push({ kind: "reservation", line, mac, address, name: r.hostname ?? "" });
    else problems.push(notUnderstood(line, JSON.stringify(r), "the reservation names no MAC or no address"));
  }
  return { rows, problems };
}

/** A configuration of Kea for IPv4, with the comments that it may have. */
export const KEA: NetworkReader = {
  format: "Kea configuration",
  recognises: (text) => /"Dhcp4"\s*:/.test(text),
  read: readKea,
};
