import { fail, ok, type Result } from "../result";
import { openLineOf } from "../text";
import type { Checksum } from "./image";

/** One line of a published list. */
export interface ListedChecksum {
  checksum: Checksum;
  /** File name without folders; null for a detached digest that names no file. */
  name: string | null;
  line: number;
}

const BY_LENGTH: Record<number, Checksum["algorithm"]> = {
  32: "md5",
  40: "sha1",
  64: "sha256",
  128: "sha512",
};
const NAMES: Record<string, Checksum["algorithm"]> = {
  md5: "md5",
  sha1: "sha1",
  sha256: "sha256",
  "sha2-256": "sha256",
  sha512: "sha512",
  "sha2-512": "sha512",
};

const baseName = (path: string): string => path.replace(/^\*/, "").split(/[\\/]/).at(-1)?.trim() ?? "";

/** The digest of one line in any of the common forms, or null for a line that holds none. */
function parseLine(text: string): Omit<ListedChecksum, "line"> | null {
  const bsd = /^(MD5|SHA-?1|SHA2?-?256|SHA2?-?512)\s*\((.+)\)\s*=\s*([0-9a-f]+)$/i.exec(text);
  if (bsd) {
    const algorithm = NAMES[(bsd[1] ?? "").toLowerCase().replace(/^sha-/, "sha")];
    const value = (bsd[3] ?? "").toLowerCase();
    return algorithm && BY_LENGTH[value.length] === algorithm
      ? { checksum: { algorithm, value }, name: baseName(bsd[2] ?? "") }
      : null;
  }
  const plain = /^\\?([0-9a-f]{32}|[0-9a-f]{40}|[0-9a-f]{64}|[0-9a-f]{128})(?:\s+(.+))?$/i.exec(text);
  const algorithm = BY_LENGTH[plain?.[1]?.length ?? 0];
  return plain && algorithm
    ? {
        checksum: { algorithm, value: (plain[1] ?? "").toLowerCase() },
        name: plain[2] ? baseName(plain[2]) : null,
      }
    : null;
}

/**
 * Reads a list of checksums: lines of coreutils ("DIGITS  name", "DIGITS *name"), of BSD ("SHA256 (name) = DIGITS"), or
 * a digest alone. Signature armour around or beside them is passed over and named: Derrick does not check signatures. A last
 * line without an end is not taken: the list may be cut off there.
 */
export function parseChecksumList(
  text: string,
): Result<{ entries: ListedChecksum[]; signed: boolean; openLine: number | null }> {
  const all = text.split(/\r?\n/).flatMap((raw, i): ListedChecksum[] => {
    const found = parseLine(raw.trim());
    return found ? [{ ...found, line: i + 1 }] : [];
  });
  // A digest alone often has no end of line. In a list a name may go on where it was cut off.
  const openLine = openLineOf(text);
  const isCut = all.length > 1 && all.at(-1)?.line === openLine;
  const entries = isCut ? all.slice(0, -1) : all;
  if (entries.length === 0)
    return fail({
      message: "no line has a checksum: 32, 40, 64 or 128 hexadecimal digits, next to the file name",
      line: 1,
    });
  return ok({
    entries,
    signed: /-----BEGIN PGP (SIGNED MESSAGE|SIGNATURE)-----/.test(text),
    openLine: isCut ? openLine : null,
  });
}

const STRENGTH: Checksum["algorithm"][] = ["sha512", "sha256", "sha1", "md5"];

/**
 * The entry for a file: by its name, by its value when the name differs (a renamed download), or the only one of a list
 * without names. Of several algorithms the strongest is taken.
 */
export function matchChecksum(
  entries: readonly ListedChecksum[],
  fileName: string,
  computed: Checksum | null,
): { entry: ListedChecksum; by: "name" | "value" | "alone" } | null {
  const strongest = (list: readonly ListedChecksum[]): ListedChecksum | undefined =>
    [...list].sort(
      (a, b) => STRENGTH.indexOf(a.checksum.algorithm) - STRENGTH.indexOf(b.checksum.algorithm),
    )[0];
  const named = strongest(entries.filter((e) => e.name !== null && e.name === baseName(fileName)));
  if (named) return { entry: named, by: "name" };
  const valued =
    computed &&
    entries.find(
      (e) => e.checksum.algorithm === computed.algorithm && e.checksum.value === computed.value.toLowerCase(),
    );
  if (valued) return { entry: valued, by: "value" };
  const alone = entries.length === 1 && entries[0]?.name === null ? entries[0] : undefined;
  return alone ? { entry: alone, by: "alone" } : null;
}

/** Digests that can be forged today; read for old lists, and said so. */
export const isWeak = (algorithm: Checksum["algorithm"]): boolean =>
  algorithm === "md5" || algorithm === "sha1";
