/** What a boot loader tells of its machine, in the order in which the scripts ask for it. */
const NAMES = ["mac", "serial", "uuid", "maker", "model", "platform", "code"] as const;
export type ToldName = (typeof NAMES)[number];

const MARK = new RegExp(`(?:^|&)(${NAMES.join("|")})=`, "g");

/** iPXE writes a byte above 127 with the sign of a larger number before it (seen): %FFFFFFFFFFFFC3 is the byte C3. */
const ESCAPES = /(?:%(?:F{12})?[\dA-F]{2})+/gi;

const decoded = (text: string): string =>
  text.replace(ESCAPES, (run) => {
    const bytes = run.match(/%(?:F{12})?([\dA-F]{2})/gi)!.map((one) => Number.parseInt(one.slice(-2), 16));
    return new TextDecoder().decode(Uint8Array.from(bytes));
  });

/**
 * What stands in the query of a boot loader's address. iPXE leaves + and & of a value as they are (seen), so that only the known
 * names part it, each where it stands first, and a + is a +. What no name stands for is "".
 */
export function toldIn(address: string): Record<ToldName, string> {
  const query = address.slice(address.indexOf("?") + 1);
  const told = Object.fromEntries(NAMES.map((name) => [name, ""])) as Record<ToldName, string>;
  if (!address.includes("?")) return told;
  const seen = new Set<string>();
  const marks = [...query.matchAll(MARK)].filter(([, name]) => !seen.has(name!) && seen.add(name!));
  marks.forEach((mark, i) => {
    const end = marks[i + 1]?.index ?? query.length;
    told[mark[1] as ToldName] = decoded(query.slice(mark.index + mark[0].length, end));
  });
  return told;
}

/** A MAC as it is stored: six bytes between colons; null for what is none. */
export function macIn(text: string): string | null {
  const mac = text.toLowerCase().replaceAll("-", ":");
  return /^[\da-f]{2}(?::[\da-f]{2}){5}$/.test(mac) ? mac : null;
}
