/** A public host key as the key files and ssh-keyscan print it: kind and base64, and a comment that may follow. */
const KEY = /^(ssh-(?:rsa|ed25519)|ecdsa-sha2-nistp(?:256|384|521))\s+([A-Za-z0-9+/]{40,}={0,2})(?:\s.*)?$/;

/** True for kind and base64 alone. */
export const isHostKey = (line: string): boolean => KEY.test(line.trim()) && hostKeyOf(line) === line;

/** Kind and base64 of a line that has a public host key, also behind the name that ssh-keyscan prints; null for any other. */
export function hostKeyOf(line: string): string | null {
  const text = line.trim();
  const found = KEY.exec(text) ?? KEY.exec(text.replace(/^\S+\s+/, ""));
  return found ? `${found[1]} ${found[2]}` : null;
}

/** The keys of a text, one a line, each once; and the lines that hold none. */
export function readHostKeys(text: string): { keys: string[]; wrong: string[] } {
  const lines = text.split(/\r?\n/).filter((l) => l.trim() !== "" && !l.startsWith("#"));
  const keys = lines.flatMap((l) => hostKeyOf(l) ?? []);
  return { keys: [...new Set(keys)], wrong: lines.filter((l) => hostKeyOf(l) === null) };
}
