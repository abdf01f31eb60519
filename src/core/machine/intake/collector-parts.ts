/** Where a bundle goes: saved as text, or posted back once with the code that names the machine. */
export interface CollectorTarget {
  postUrl: string | null;
}

/** What every collector begins with: how a section is written. The grammar of the bundle stands in bundle.ts. */
export const HEAD = ({ postUrl }: CollectorTarget): string => `#!/bin/sh
# Derrick collector: reads what this machine is and changes nothing on it.
# Use:  sh collect.sh > bundle.txt     (as root where you can: dmidecode needs it)
POST_URL='${(postUrl ?? "").replaceAll("'", "")}'
PATH="$PATH:/sbin:/usr/sbin:/usr/local/sbin"
LC_ALL=C
export PATH LC_ALL
umask 077

# emit NAME STATUS TEXT: one section, every line behind "| ", with its line count.
emit() {
  echo "begin $1"
  printf '%s\\n' "$3" | sed 's/^/| /'
  echo "end $1 lines=$(printf '%s\\n' "$3" | wc -l | tr -d ' ') exit=$2"
}

# section NAME COMMAND...: the output of one tool; what it could not do is said in its own words.
section() {
  name=$1
  shift
  if ! command -v "$1" >/dev/null 2>&1; then
    echo "absent $name the program $1 is not installed here"
    return
  fi
  text=$("$@" 2>/dev/null)
  status=$?
  if [ "$status" -ne 0 ] || [ -z "$text" ]; then
    why=$("$@" 2>&1 >/dev/null | tail -n 1 | cut -c 1-120)
    echo "absent $name $* said: \${why:-nothing} (exit $status)"
    return
  fi
  emit "$name" "$status" "$text"
}

`;

/** And what it ends with: the bundle goes to standard output, or is posted back and kept when that fails. */
export const TAIL = `if [ -z "$POST_URL" ]; then
  collect
  exit 0
fi
file=\${TMPDIR:-/tmp}/derrick-bundle.$$.txt
collect > "$file"
if command -v curl >/dev/null 2>&1; then
  answer=$(curl -sS --max-time 60 -H 'Content-Type: text/plain' --data-binary "@$file" "$POST_URL" 2>&1) && sent=1
elif command -v wget >/dev/null 2>&1; then
  answer=$(wget -q -O - --timeout=60 --header='Content-Type: text/plain' --post-file="$file" "$POST_URL" 2>&1) && sent=1
else
  answer='neither curl nor wget is installed here'
fi
echo "$answer"
case "\${sent:-0}:$answer" in
  1:received*) rm -f "$file" ;;
  *) echo "Not sent. The bundle was saved as $file: copy it to your workstation and import it on the page of the machine." >&2; exit 1 ;;
esac
`;

/**
 * What each drive can be started from: how its first sector ends, whether code stands in it, and the EFI programs of the
 * FAT volumes that are mounted, with their machine word and the size of their signature table (PE/COFF, sections 3.3 and
 * 3.4). Grammar in importers/starts.ts. Nothing is mounted for it; what is not mounted is not told.
 */
export const STARTS = `le() { # le FILE OFFSET BYTES: a little-endian number inside a file
  od -An -v -tu1 -j "$2" -N "$3" "$1" 2>/dev/null | awk '{ for (i = NF; i > 0; i--) n = n * 256 + $i } END { print n + 0 }'
}

first_sector() { # first_sector NAME
  hex=$(head -c 4096 "/dev/$1" 2>/dev/null | od -An -v -tx1 2>/dev/null | tr -d ' \\n' | cut -c 1-1024)
  if [ "\${#hex}" -lt 1024 ]; then
    echo "drive $1 unread"
    return
  fi
  code=$(printf '%s' "$hex" | cut -c 1-880 | tr -d 0)
  echo "drive $1 ends=$(printf '%s' "$hex" | cut -c 1021-1024) code=\${code:+yes}"
}

efi_program() { # efi_program FILE NAME
  at=$(le "$1" 60 4)
  if [ "$(le "$1" 0 2)" != 23117 ] || [ "$(le "$1" "$at" 4)" != 17744 ]; then
    echo "file machine=none signature=0 $2"
    return
  fi
  table=$((at + 156))
  [ "$(le "$1" $((at + 24)) 2)" = 523 ] && table=$((at + 172))
  echo "file machine=$(le "$1" $((at + 4)) 2) signature=$(le "$1" "$table" 4) $2"
}

efi_volume() { # efi_volume SOURCE WHERE
  find "$2" -type f -iname '*.efi' -print >/dev/null 2>&1 || { echo "volume \${1#/dev/} unread"; return; }
  echo "volume \${1#/dev/} $(lsblk -d -n -o PARTUUID "$1" 2>/dev/null)"
  find "$2" -type f -iname '*.efi' -print 2>/dev/null | head -n 400 | while IFS= read -r file; do
    efi_program "$file" "\${file#"$2"}"
  done
}

`;

export const BEGIN = `collect() {
  echo "derrick-bundle 1"
  echo "host $(hostname 2>/dev/null || echo unknown)"
  echo "taken $(date -u +%Y-%m-%dT%H:%M:%SZ)"
  echo "user $(id -u)"
  section settings settings
  section os-release cat /etc/os-release
`;
