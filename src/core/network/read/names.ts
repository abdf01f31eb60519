import { isAddress } from "../address";
import { isMac } from "../interface";
import { linesOf, readLines, type NetworkReader, type NetworkRow } from "./row";

const isName = (text: string): boolean => /^[A-Za-z\d_](?:[A-Za-z\d_.-]{0,252}[A-Za-z\d_.])?$/.test(text);
const bare = (address: string): string => address.split("%")[0] ?? "";

/** Loopback and multicast lines stand in every such file, and are of no network. */
const isOwn = (address: string): boolean => /^(127\.|::1$|f[ef]0|255\.)/i.test(address);

export const HOSTS: NetworkReader = {
  format: "hosts file",
  recognises: (text) => {
    const lines = linesOf(text, "#");
    const fitting = lines.filter(({ text: l }) => {
      const [address = "", name = ""] = l.split(/\s+/);
      return isAddress(bare(address)) && isName(name) && !/^(dev|ether|IN|ENT)$/.test(name);
    });
    return lines.length > 0 && fitting.length * 2 > lines.length;
  },
  read: (text) =>
    readLines(text, "#", ([address = "", name = ""], line) => {
      if (!isAddress(bare(address))) return `"${address.slice(0, 60)}" is not an address`;
      if (!isName(name))
        return name === "" ? "no name after the address" : `"${name.slice(0, 60)}" is not a host name`;
      return isOwn(address) ? [] : [{ kind: "host", line, address: bare(address), name }];
    }),
};

const TYPE = /^(?:A|AAAA)$/i;
const TTL = /^\d+[smhdw]?$/i;

/** One record of a zone: its owner (that of the line before, where it begins with a blank), its type and what it says. */
function record(raw: string, owner: string): { owner: string; type: string; data: string[] } {
  const words = raw.trim().split(/\s+/);
  const own = /^\s/.test(raw) ? owner : (words.shift() ?? owner);
  while (words[0] !== undefined && (TTL.test(words[0]) || /^(IN|CH|HS)$/i.test(words[0]))) words.shift();
  const [type = "", ...data] = words;
  return { owner: own, type, data };
}

/** A zone file: A and AAAA records under their full names; other records are passed over. */
export const ZONE: NetworkReader = {
  format: "zone file",
  recognises: (text) => /^\S*\s.*\bSOA\s/m.test(text) || /^\$ORIGIN\s/m.test(text),
  read(text) {
    const rows: NetworkRow[] = [];
    const problems: ReturnType<NetworkReader["read"]>["problems"] = [];
    let [origin, owner, depth] = ["", "@", 0];
    for (const [i, whole] of text.split(/\r\n|\n|\r/).entries()) {
      const raw = whole.replace(/;.*$/, "").trimEnd();
      // Records over several lines stand in brackets: only the SOA does, and nothing of it is wanted.
      const inside = depth > 0;
      depth += (raw.match(/\(/g) ?? []).length - (raw.match(/\)/g) ?? []).length;
      if (raw.trim() === "" || inside) continue;
      const [, directive = "", value = ""] = /^\$(\w+)\s+(\S+)/.exec(raw) ?? [];
      if (directive) {
        if (directive.toUpperCase() === "ORIGIN") origin = value.replace(/\.$/, "");
        continue;
      }
      const read = record(raw, owner);
      owner = read.owner;
      if (!TYPE.test(read.type)) continue;
      const [address = ""] = read.data;
      const name =
        owner === "@"
          ? origin
          : owner.endsWith(".")
            ? owner.slice(0, -1)
            : [owner, origin].filter(Boolean).join(".");
      if (isAddress(address) && isName(name)) rows.push({ kind: "host", line: i + 1, address, name });
      else
        problems.push({
          line: i + 1,
          message: "the record has no name or no valid address",
          excerpt: raw.slice(0, 120),
        });
    }
    return { rows, problems };
  },
};

const NEIGH = /^(\S+) dev \S+(?: lladdr (\S+))?/;
const ARP = /^\S+ \(([^)]+)\) at (\S+)/;
const ARP_TABLE = /^([\d.]+)\s+(?:ether|0x1)\s+(?:0x\S+\s+)?(\S+)/;

/** What `ip neigh`, `arp -an` and `arp` print: which MAC answered for an address. */
export const NEIGHBOURS: NetworkReader = {
  format: "table of neighbours",
  recognises: (text) =>
    linesOf(text, "#").some(({ text: l }) => [NEIGH, ARP, ARP_TABLE].some((r) => r.test(l))),
  read: (text) =>
    readLines(text, "#", (_, line, own) => {
      const [, address = "", mac = ""] = [NEIGH, ARP, ARP_TABLE].map((r) => r.exec(own)).find(Boolean) ?? [];
      if (/^Address\s|^IP address\s/.test(own)) return [];
      if (address === "") return "not a line of such a table";
      // Without a MAC nobody answered: the address may be free, and nothing is said of it.
      if (!isMac(mac.toLowerCase()) || !isAddress(bare(address))) return [];
      return [{ kind: "seen", line, address: bare(address), mac: mac.toLowerCase() }];
    }),
};
