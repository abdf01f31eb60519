import { driveLook, type Drive } from "../../machine";
import { comment, quoted } from "./quote";

/** A drive as a script names it: its variable, and whether what stands on it may go. */
export interface NamedDrive {
  variable: string;
  drive: Drive;
  mayErase: boolean;
}

const serial = ({ serial: own }: Drive): string => (own ?? "").replace(/\s+/g, "");

const FUNCTIONS = String.raw`by_id=${"$"}{BY_ID:-/dev/disk/by-id}

stop() {
  printf 'STOP, nothing was written: %s\n' "$*" >&2
  exit 1
}

need() {
  command -v "$1" >/dev/null 2>&1 || stop "the program $1 is not here"
}

serial_of() {
  lsblk -dnro SERIAL -- "$1" | sed 's/\\x20//g' | tr -d '[:space:]'
}

# name_of SERIAL BYTES WHAT: the lasting name of the drive with this serial and size, and of no other one.
name_of() {
  found=
  for name in "$by_id"/*; do
    case $name in *-part[0-9]*) continue ;; esac
    [ "$(serial_of "$name")" = "$1" ] || continue
    if [ -n "$found" ] && [ "$(readlink -f -- "$found")" != "$(readlink -f -- "$name")" ]; then
      stop "two drives answer with the serial of $3"
    fi
    [ -n "$found" ] || found=$name
  done
  [ -n "$found" ] || stop "no drive answers with the serial of $3"
  bytes=$(blockdev --getsize64 "$found")
  [ "$bytes" = "$2" ] || stop "$3 has $bytes bytes, and $2 are planned"
  printf '%s\n' "$found"
}

# idle NAME WHAT: neither it nor a part of it is mounted or belongs to anything that runs.
idle() {
  if lsblk -nro MOUNTPOINT -- "$1" | grep -q .; then stop "$2 is mounted"; fi
  if lsblk -nro TYPE -- "$1" | grep -qvE '^(disk|part|loop)$'; then stop "$2 belongs to something that runs"; fi
}

# bare NAME WHAT: nothing stands on it.
bare() {
  kept=$(wipefs --noheadings --output TYPE -- "$1" | tr '\n' ' ')
  [ -z "$kept" ] || stop "on $2 stands what the sheet knows nothing of: $kept"
}
`;

/** The serials of drives that no command may reach, as a test that stops. */
function refusal(kept: readonly Drive[]): string[] {
  const serials = [...new Set(kept.map(serial).filter(Boolean))];
  if (serials.length === 0) return [];
  return [
    "# spared NAME WHAT: it is none of those that must not be touched.",
    "spared() {",
    '  case $(serial_of "$1") in',
    `    ${serials.map(quoted).join(" | ")}) stop "$2 must not be touched" ;;`,
    "  esac",
    "}",
    "",
  ];
}

/**
 * The head of a script that writes to drives: it finds each by its serial, compares the size, and stops before the first
 * write when one is absent, another, in use, on the list of those that must not be touched, or holds what nobody agreed to
 * lose. `programs` are those that the rest of the script calls.
 */
export function preamble(
  drives: readonly NamedDrive[],
  kept: readonly Drive[],
  programs: readonly string[],
): string[] {
  const refuses = refusal(kept);
  return [
    ...["set -eu", "", FUNCTIONS],
    ...refuses,
    '[ "$(id -u)" -eq 0 ] || stop "only root can do this"',
    ...["lsblk", "blockdev", "wipefs", "readlink", ...programs].map((p) => `need ${p}`),
    '[ -d "$by_id" ] || stop "there is no $by_id, so drives have no lasting names here"',
    "",
    ...drives.flatMap(({ variable, drive, mayErase }) => {
      const what = quoted(driveLook(drive));
      const name = `"$${variable}"`;
      return [
        `${variable}=$(name_of ${quoted(serial(drive))} ${drive.sizeBytes} ${what})`,
        ...(refuses.length > 0 ? [`spared ${name} ${what}`] : []),
        `idle ${name} ${what}`,
        ...(mayErase ? [] : [`bare ${name} ${what}`]),
      ];
    }),
    "",
    comment("Every drive is the planned one. From here on they are written."),
  ];
}

/** What takes away whatever stands on the drives whose erasing was agreed to. */
export function wiping(drives: readonly NamedDrive[]): string[] {
  const own = drives.filter((d) => d.mayErase);
  if (own.length === 0) return [];
  return [
    `for drive in ${own.map((d) => `"$${d.variable}"`).join(" ")}; do`,
    "  # Its parts first, from the last one on: the table that names them goes with the drive.",
    '  lsblk -nrpo NAME -- "$drive" | sort -r | while read -r part; do',
    '    wipefs --all --quiet -- "$part"',
    "  done",
    '  blockdev --rereadpt "$drive" 2>/dev/null || :',
    "done",
    "",
  ];
}
