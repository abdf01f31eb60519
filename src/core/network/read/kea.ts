import { z } from "zod";
import { parseJson } from "../../text";
import { isAddress } from "../address";
import { isMac } from "../interface";
import { notUnderstood, valueFinder, type NetworkReader, type NetworkRow, type NetworkReading } from "./row";

const word = z.string().max(400).optional().catch(undefined);
const words = z.array(z.string().max(400)).catch([]).default([]);
const reservations = z
  .array(z.object({ "hw-address": word, "ip-address": word, "ip-addresses": words, hostname: word }))
  .catch([])
  .default([]);
const subnets = z
  .array(
    z.object({
      pools: z
        .array(z.object({ pool: word }))
        .catch([])
        .default([]),
      reservations,
    }),
  )
  .catch([])
  .default([]);
const networks = { subnet4: subnets, subnet6: subnets };
const server = z
  .object({
    ...networks,
    "shared-networks": z.array(z.object(networks)).catch([]).default([]),
    reservations,
  })
  .optional();
const tree = z
  .object({ Dhcp4: server, Dhcp6: server })
  .refine((t) => t.Dhcp4 !== undefined || t.Dhcp6 !== undefined);

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
  if (!read.success)
    return { rows: [], problems: [{ line: 1, message: "neither Dhcp4 nor Dhcp6 in the file" }] };
  const servers = [read.data.Dhcp4 ?? [], read.data.Dhcp6 ?? []].flat();
  const subnetsOf = (s: (typeof servers)[number]) =>
    [s, ...s["shared-networks"]].flatMap((n) => [...n.subnet4, ...n.subnet6]);
  const subnets = servers.flatMap(subnetsOf);
  const rows: NetworkRow[] = [];
  const problems: NetworkReading["problems"] = [];
  const poolLine = valueFinder(text);
  const lineOf = valueFinder(text);
  for (const { pool = "" } of subnets.flatMap((s) => s.pools)) {
    const [from = "", to = ""] = pool.split("-").map((p) => p.trim());
    if (isAddress(from) && isAddress(to)) rows.push({ kind: "range", line: poolLine(pool), from, to });
    else problems.push(notUnderstood(poolLine(pool), pool, "a pool is written as first and last address"));
  }
  for (const r of [...servers.flatMap((s) => s.reservations), ...subnets.flatMap((s) => s.reservations)]) {
    const mac = (r["hw-address"] ?? "").toLowerCase();
    const addresses = [r["ip-address"] ?? [], ...r["ip-addresses"]].flat().filter(isAddress);
    const line = lineOf(r["hw-address"] ?? addresses[0] ?? "");
    for (const address of isMac(mac) ? addresses : [])
      rows.push({ kind: "reservation", line, mac, address, name: r.hostname ?? "" });
    if (!isMac(mac) || addresses.length === 0)
      problems.push(notUnderstood(line, JSON.stringify(r), "the reservation has no MAC or no address"));
  }
  return { rows, problems };
}

/** A configuration of Kea, for IPv4 or IPv6, with the comments that it may have. */
export const KEA: NetworkReader = {
  format: "Kea configuration",
  recognises: (text) => /"Dhcp[46]"\s*:/.test(text),
  read: readKea,
};
