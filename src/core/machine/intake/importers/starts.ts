import type { z } from "zod";
import { ok, type Problem, type Result } from "../../../result";
import type { efiVolumeSchema } from "../../facts/drive";
import type { ObservedDrive } from "../../facts/identity";
import { plural, type Importer, type Reading } from "./importer";

type EfiVolume = z.infer<typeof efiVolumeSchema>;
type EfiFile = EfiVolume["files"][number];

/** Machine words of PE/COFF, section 3.3.1. */
const ARCHES: ReadonlyMap<string, EfiFile["arch"]> = new Map([
  ["34404", "x64"],
  ["332", "ia32"],
  ["43620", "aa64"],
  ["none", null],
]);

interface Found {
  drives: Map<string, ObservedDrive>;
  ignored: string[];
  problems: Problem[];
  /** The volume that the next lines speak of; null where it is on no drive that was told. */
  open: EfiVolume | null;
}

function driveLine(found: Found, [name = "", ...values]: string[], line: number): void {
  const sector = /^ends=([0-9a-f]{4}) code=(yes|)$/.exec(values.join(" "));
  if (values[0] === "unread") found.ignored.push(`first sector of ${name}: not readable; root is required`);
  else if (!sector) found.problems.push({ message: `data of ${name} is not recognised`, line });
  const firstSector = sector && { signature: sector[1] === "55aa", code: sector[2] === "yes" };
  found.drives.set(name, { seenAs: name, ...(firstSector ? { firstSector } : {}) });
}

/** A partition is its drive's name with a number behind: "sda1", "nvme0n1p1", "ada0p1", "da0s1". */
function partitionOf(
  part: string,
  drives: ReadonlyMap<string, unknown>,
): { drive: string; number: number } | null {
  if (drives.has(part)) return { drive: part, number: 0 };
  const number = /\d{1,9}$/.exec(part.slice(-9))?.[0] ?? "";
  const before = part.slice(0, part.length - number.length);
  const drive = /\d[ps]$/.test(before) ? before.slice(0, -1) : before;
  // A drive whose name ends in a number has a letter between: nvme0n1p1; another has none: sda1.
  if (number === "" || !drives.has(drive) || (/\d$/.test(drive) && drive === before)) return null;
  return { drive, number: Number(number) };
}

function volumeLine(found: Found, [part = "", state]: string[]): void {
  const on = partitionOf(part, found.drives);
  found.open = null;
  if (state === "unread") found.ignored.push(`${part}: files not readable; root is required`);
  else if (!on) found.ignored.push(`${part}: a FAT volume on an unknown drive`);
  else {
    const drive = found.drives.get(on.drive)!;
    found.open = { partition: on.number, ...(state ? { partUuid: state.slice(0, 100) } : {}), files: [] };
    drive.efiVolumes = [...(drive.efiVolumes ?? []).filter((v) => v.partition !== on.number), found.open];
  }
}

const archOf = (machine: string): EfiFile["arch"] => {
  const arch = ARCHES.get(machine);
  return arch === undefined ? "other" : arch;
};

function fileLine(found: Found, rest: string, line: number): void {
  const match = /^machine=(\w+) signature=(\d+) (\/.*)$/.exec(rest);
  if (!match) found.problems.push({ message: "data of a file is not recognised", line });
  else
    found.open?.files.push({
      path: match[3]!.replaceAll("/", "\\").slice(0, 400),
      arch: archOf(match[1]!),
      isSigned: match[2] !== "0",
    });
}

/**
 * The collector's own look at what drives start from. Lines: `drive NAME ends=HEX code=yes|` (how the first sector ends,
 * and whether its first 440 bytes hold code) or `drive NAME unread`; `volume PART GUID` for a mounted FAT volume, and below it
 * `file machine=N signature=BYTES PATH` for each EFI program. A drive without root, and a volume that is not mounted,
 * stay unread.
 */
export const starts: Importer = {
  tool: "starts",
  command: "(the collector's own look)",
  recognises: (text) => /^collector\.starts=1$/m.test(text.slice(0, 200)),
  parse(text): Result<Reading> {
    const found: Found = { drives: new Map(), ignored: [], problems: [], open: null };
    text.split("\n").forEach((raw, i) => {
      const [word, ...rest] = raw.trimEnd().split(" ");
      if (word === "drive") driveLine(found, rest, i + 1);
      else if (word === "volume") volumeLine(found, rest);
      else if (word === "file") fileLine(found, rest.join(" "), i + 1);
    });
    const drives = [...found.drives.values()];
    const files = drives.flatMap((d) => d.efiVolumes ?? []).flatMap((v) => v.files);
    return ok(
      {
        facts: { drives },
        understood: `the first sector of ${plural(drives.filter((d) => d.firstSector).length, "drive")}, ${plural(files.length, "EFI program")}`,
        ignored: found.ignored,
      },
      found.problems,
    );
  },
};
