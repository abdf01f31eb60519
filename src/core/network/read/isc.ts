import { isAddress } from "../address";
import { isMac } from "../interface";
import { lineFinder, notUnderstood, type NetworkReader, type NetworkRow, type NetworkReading } from "./row";

interface Token {
  text: string;
  at: number;
}

/** Words, quoted texts and the signs { } ; of a configuration, each with its place; comments are left out. */
function tokensOf(text: string): Token[] {
  const tokens: Token[] = [];
  for (const m of text.matchAll(/#[^\n]*|"(?:[^"\\\n]|\\.)*"|[{};]|[^\s{};"#]+/g))
    if (!m[0].startsWith("#")) tokens.push({ text: m[0].replace(/^"(.*)"$/, "$1"), at: m.index });
  return tokens;
}

/** A block: the words before its brace, and the statements in it. */
interface Block {
  head: string[];
  at: number;
  statements: Map<string, string[]>;
}

/** The innermost blocks of a configuration, and the statements that stand alone, by a walk with a stack. */
function blocksOf(text: string): {
  blocks: Block[];
  single: { words: string[]; at: number }[];
  open: Token | null;
} {
  const stack: Block[] = [];
  const blocks: Block[] = [];
  const single: { words: string[]; at: number }[] = [];
  let words: Token[] = [];
  for (const token of tokensOf(text)) {
    if (token.text === "{") {
      stack.push({ head: words.map((w) => w.text), at: words[0]?.at ?? token.at, statements: new Map() });
      words = [];
    } else if (token.text === "}") {
      const block = stack.pop();
      if (block) blocks.push(block);
      words = [];
    } else if (token.text === ";") {
      const told = words.map((w) => w.text);
      const [first] = words;
      if (first) single.push({ words: told, at: first.at });
      // "hardware ethernet 02:..": the first word, or the first two, name the statement.
      const name = ["hardware", "option", "client-hostname"].includes(told[0] ?? "")
        ? told.slice(0, 2).join(" ")
        : (told[0] ?? "");
      stack.at(-1)?.statements.set(name, told);
      words = [];
    } else words.push(token);
  }
  const [left] = stack;
  return { blocks, single, open: left ? { text: left.head.join(" "), at: left.at } : null };
}

function readIsc(text: string): Pick<NetworkReading, "rows" | "problems"> {
  const { blocks, single, open } = blocksOf(text);
  const lineAt = lineFinder(text);
  const rows: NetworkRow[] = [];
  const problems = open ? [notUnderstood(lineAt(open.at), open.text, "this block is not closed")] : [];
  for (const { head, at, statements } of blocks) {
    const mac = (statements.get("hardware ethernet")?.[2] ?? "").toLowerCase();
    const line = lineAt(at);
    if (head[0] === "lease") {
      const [, address = ""] = head;
      if (isMac(mac) && isAddress(address)) rows.push({ kind: "seen", line, address, mac });
      else problems.push(notUnderstood(line, head.join(" "), "the lease has no MAC or no address"));
    } else if (head[0] === "host") {
      const addresses = ["fixed-address", "fixed-address6"].flatMap((name) =>
        (statements.get(name) ?? []).slice(1).join("").split(",").filter(isAddress),
      );
      const name = head[1] ?? "";
      if (isMac(mac) && addresses.length > 0)
        rows.push(
          ...addresses.map((address): NetworkRow => ({ kind: "reservation", line, mac, address, name })),
        );
      else
        problems.push(notUnderstood(line, head.join(" "), "the host has no MAC or no valid fixed-address"));
    }
  }
  for (const { words, at } of single)
    if (words[0] === "range" || words[0] === "range6") {
      const [from, to] = words.slice(1).filter((w) => w !== "dynamic-bootp");
      const line = lineAt(at);
      if (from && isAddress(from) && isAddress(to ?? from))
        rows.push({ kind: "range", line, from, to: to ?? from });
      else problems.push(notUnderstood(line, words.join(" "), "the range has no address"));
    }
  rows.sort((a, b) => a.line - b.line);
  return { rows, problems };
}

/** dhcpd.conf and dhcpd.leases: of several leases of one address the last is the one that holds. */
export const ISC: NetworkReader = {
  format: "dhcpd configuration or leases",
  recognises: (text) =>
    /^[ \t]*(?:host\s+\S+|lease\s+[\d.]+|subnet\s+[\d.]+\s+netmask\s+[\d.]+|subnet6\s+[\da-f:]+\/\d+)\s*\{/m.test(
      text,
    ),
  read: (text) => {
    const { rows, problems } = readIsc(text);
    const last = new Map(
      rows.map((r) => [r.kind === "seen" ? `seen ${r.address}` : `${r.line} ${JSON.stringify(r)}`, r]),
    );
    return { rows: [...last.values()], problems };
  },
};
