/**
 * What the script of a BSD begins with: how a drive is found by its serial, and when it is not written. `geom disk list`
 * tells serial ("ident") and use ("Mode"): r0w0e0 is a drive that nothing has open.
 */
export const BSD_FUNCTIONS = String.raw`set -eu

stop() {
  printf 'STOP, nothing was written: %s\n' "$*" >&2
  exit 1
}

told_of() {
  geom disk list "$1" | sed -n "s/^ *$2: *//p"
}

serial_of() {
  told_of "$1" ident | tr -d '[:space:]'
}

# name_of SERIAL BYTES WHAT: the drive with this serial and size, and no other one.
name_of() {
  found=
  for name in $(sysctl -n kern.disks); do
    [ "$(serial_of "$name")" = "$1" ] || continue
    [ -z "$found" ] || stop "two drives answer with the serial of $3"
    found=$name
  done
  [ -n "$found" ] || stop "no drive answers with the serial of $3"
  bytes=$(diskinfo "/dev/$found" | awk '{ print $3 }')
  [ "$bytes" = "$2" ] || stop "$3 has $bytes bytes, and $2 are planned"
  printf '%s\n' "$found"
}

# idle NAME WHAT: nothing has it open, be it a file system, a pool or swap.
idle() {
  [ "$(told_of "$1" Mode)" = r0w0e0 ] || stop "$2 is in use"
}

# bare NAME WHAT: nothing stands on it.
bare() {
  if gpart show "$1" >/dev/null 2>&1; then stop "on $2 stands a table of parts, which the sheet knows nothing of"; fi
  kept=$(fstyp -u "/dev/$1" 2>/dev/null || :)
  [ -z "$kept" ] || stop "on $2 stands what the sheet knows nothing of: $kept"
}

# ours LABEL NAME...: no part of another drive has this label.
ours() {
  label=$1
  shift
  for part in $(glabel status -s | awk -v l="gpt/$label" '$1 == l { print $3 }'); do
    case " $* " in
      *" ${"$"}{part%p[0-9]*} "*) ;;
      *) stop "a part of $part is called $label already: take that drive out" ;;
    esac
  done
}

# port_of MAC: what this system calls the port.
port_of() {
  for port in $(ifconfig -l ether); do
    if ifconfig "$port" | grep -qi "ether $1"; then
      printf '%s\n' "$port"
      return
    fi
  done
  stop "no port has the MAC $1"
}

# sum_of FOLDER SET: it is the one that the list of sums on the medium names.
sum_of() {
  planned=$(awk -v set="$2" '$1 == set { print $2 }' "$1/MANIFEST")
  [ -n "$planned" ] || stop "the list of sums does not name $2"
  [ "$(sha256 -q "$1/$2")" = "$planned" ] || stop "$2 is damaged: its sum is not the one in the list"
}

[ "$(id -u)" -eq 0 ] || stop "only root can do this"
`;
