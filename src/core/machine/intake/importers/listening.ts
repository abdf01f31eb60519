import { isOneOf } from "../../../text";
import { fail, ok, type Result } from "../../../result";
import type { Listening } from "../../facts/facts";
import { plural, type Importer, type Reading } from "./importer";

const SS = /^(tcp|udp)\s+(?:LISTEN|UNCONN)\s+\d+\s+\d+\s+(\S+):(\d{1,5})\s/;

/** "127.0.0.53%lo", "[::1]" and "*" as the address alone; "*" is all addresses of both kinds. */
const plain = (address: string): string => address.replace(/^\[(.*)\]$/, "$1").replace(/%.*$/, "");

/** What was found, and how many lines told nothing of it. */
const shown = (found: readonly Listening[], others: number): Result<Reading> => {
  if (others > 0 && found.length === 0) return fail({ message: "no line has a listening port" });
  return ok({
    facts: { system: { listening: [...found] } },
    understood: `${plural(found.length, "listening port")}`,
    ignored: others > 0 ? [`${plural(others, "line")} of other sockets`] : [],
  });
};

const linesOf = (text: string, heading: RegExp): string[] =>
  text.split(/\r?\n/).filter((l) => l.trim() !== "" && !heading.test(l));

const PROTOCOLS = ["tcp", "udp"] as const;

/** `ss -H -tuln`: what the machine answers with, and on which of its addresses; names of programs are not asked for. */
export const ss: Importer = {
  tool: "ss",
  command: "ss -H -tuln",
  recognises: (text) =>
    /^(?:Netid\s+State\s|(?:tcp\s+LISTEN|udp\s+UNCONN)\s+\d+\s+\d+\s+\S+:\d+\s)/m.test(text.slice(0, 2000)),
  parse(text) {
    const lines = linesOf(text, /^Netid\s/);
    const found = lines.flatMap((line): Listening[] => {
      const [, protocol, address = "", port] = SS.exec(`${line} `) ?? [];
      return isOneOf(PROTOCOLS, protocol) ? [{ protocol, address: plain(address), port: Number(port) }] : [];
    });
    return shown(found, lines.length - found.length);
  },
};

/** Who, program, process, descriptor, protocol, local and foreign address; only what nobody has connected to listens. */
const SOCKSTAT = /\s(tcp|udp)(4|6|46)\s+(\S+):(\d{1,5})\s+\*:\*(?:\s|$)/;
const ALL: Readonly<Record<string, string>> = { "4": "0.0.0.0", "6": "::", "46": "*" };

/** `sockstat -46l`, a BSD system's table of sockets; a socket of several processes stands in it once for each. */
export const sockstat: Importer = {
  tool: "sockstat",
  command: "sockstat -46l",
  recognises: (text) =>
    /^(?:USER\s+COMMAND\s+PID\s+FD\s+PROTO\s|\S+\s+\S.*\s\d+\s+\d+\s+(?:tcp|udp)(?:4|6|46)\s+\S+:\d+\s+\*:\*)/m.test(
      text.slice(0, 2000),
    ),
  parse(text) {
    const lines = linesOf(text, /^USER\s/);
    const found = new Map<string, Listening>();
    let used = 0;
    for (const line of lines) {
      const [, protocol, family = "", local = "", port] = SOCKSTAT.exec(line) ?? [];
      if (!isOneOf(PROTOCOLS, protocol)) continue;
      used += 1;
      const address = local === "*" ? (ALL[family] ?? "*") : plain(local);
      const one = { protocol, address, port: Number(port) };
      found.set(JSON.stringify(one), one);
    }
    return shown([...found.values()], lines.length - used);
  },
};
