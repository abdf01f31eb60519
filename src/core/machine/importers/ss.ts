import { fail, ok, type Result } from "../../result";
import type { Listening } from "../facts";
import type { Importer, Reading } from "./importer";

const LINE = /^(tcp|udp)\s+(?:LISTEN|UNCONN)\s+\d+\s+\d+\s+(\S+):(\d{1,5})\s/;

/** "127.0.0.53%lo", "[::1]" and "*" as the address alone; "*" is all addresses of both kinds. */
const plain = (address: string): string => address.replace(/^\[(.*)\]$/, "$1").replace(/%.*$/, "");

/** `ss -H -tuln`: what the machine answers with, and on which of its addresses; names of programs are not asked for. */
export const listening: Importer = {
  tool: "ss",
  command: "ss -H -tuln",
  recognises: (text) =>
    /^(?:Netid\s+State\s|(?:tcp\s+LISTEN|udp\s+UNCONN)\s+\d+\s+\d+\s+\S+:\d+\s)/m.test(text.slice(0, 2000)),
  parse(text): Result<Reading> {
    const lines = text.split(/\r?\n/).filter((l) => l.trim() !== "" && !/^Netid\s/.test(l));
    const found = lines.flatMap((line): Listening[] => {
      const [, protocol, address = "", port] = LINE.exec(`${line} `) ?? [];
      return protocol
        ? [{ protocol: protocol as "tcp" | "udp", address: plain(address), port: Number(port) }]
        : [];
    });
    if (lines.length > 0 && found.length === 0)
      return fail({ message: "no line names a port that is listened on" });
    return ok({
      facts: { system: { listening: found } },
      understood: `${found.length} ports that are listened on`,
      ignored: lines.length > found.length ? [`${lines.length - found.length} lines of other sockets`] : [],
    });
  },
};
