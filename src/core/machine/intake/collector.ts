/** Where a bundle goes: saved as text, or posted back once with the code that names the machine. */
export interface CollectorTarget {
  postUrl: string | null;
}

/** What every collector begins with: how a section is written. The grammar of the bundle stands in bundle.ts. */
const HEAD = ({ postUrl }: CollectorTarget): string => `#!/bin/sh
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
const TAIL = `if [ -z "$POST_URL" ]; then
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
  *) echo "Not sent. The bundle is kept in $file: carry it to Derrick and drop it on the machine's sheet." >&2; exit 1 ;;
esac
`;

/**
 * What each drive can be started from: how its first sector ends, whether code stands in it, and the EFI programs of the
 * FAT volumes that are mounted, with their machine word and the size of their signature table (PE/COFF, sections 3.3 and
 * 3.4). Grammar in importers/starts.ts. Nothing is mounted for it; what is not mounted is not told.
 */
const STARTS = `le() { # le FILE OFFSET BYTES: a little-endian number inside a file
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

const BEGIN = `collect() {
  echo "derrick-bundle 1"
  echo "host $(hostname 2>/dev/null || echo unknown)"
  echo "taken $(date -u +%Y-%m-%dT%H:%M:%SZ)"
  echo "user $(id -u)"
  section settings settings
  section os-release cat /etc/os-release
`;

/**
 * The collector: a read-only POSIX shell script for any live system. It needs no jq, no Python and, where it can, no
 * root; it calls the tools that it finds and writes one text bundle to standard output (see bundle.ts for its grammar).
 * With a post address it sends the bundle there with curl or wget instead, and keeps a copy when that fails.
 */
export const renderCollector = (target: CollectorTarget): string => `${HEAD(target)}zone() {
  if [ -L /etc/localtime ]; then readlink /etc/localtime | sed 's|.*zoneinfo/||'
  elif [ -r /etc/timezone ]; then cat /etc/timezone
  fi
}

one() { # one KEY FILE...: the value of KEY=value in the first file that has it
  key=$1
  shift
  for file in "$@"; do
    [ -r "$file" ] && sed -n "s/^$key=//p" "$file" | tr -d '"' | head -n 1
  done | head -n 1
}

root() { # what "/" is mounted from, its kind, size and free space in KiB
  if command -v findmnt >/dev/null 2>&1; then
    echo "root.source=$(findmnt -n -o SOURCE / 2>/dev/null | head -n 1)"
    echo "root.kind=$(findmnt -n -o FSTYPE / 2>/dev/null | head -n 1)"
  else
    echo "root.source=$(df -P / 2>/dev/null | sed -n '2s/ .*//p')"
  fi
  df -P -k / 2>/dev/null | sed -n '2p' | { read -r _ size _ free _ && echo "root.size.kib=$size" && echo "root.free.kib=$free"; }
}

clock() { # whether the system says that its clock follows a reference
  if command -v timedatectl >/dev/null 2>&1; then
    timedatectl show -p NTPSynchronized --value 2>/dev/null
  elif command -v chronyc >/dev/null 2>&1; then
    chronyc tracking 2>/dev/null | sed -n 's/^Leap status *: *Normal$/yes/p;s/^Leap status *: *Not synchronised$/no/p'
  fi
}

settings() {
  echo "collector.settings=1"
  echo "host.name=$(hostname 2>/dev/null || cat /proc/sys/kernel/hostname)"
  echo "kernel=$(uname -srm)"
  if [ -d /sys/firmware/efi ]; then echo "firmware.mode=uefi"; elif [ -d /sys/firmware ]; then echo "firmware.mode=legacy"; fi
  echo "memory.kib=$(sed -n 's/^MemTotal: *\\([0-9]*\\).*/\\1/p' /proc/meminfo 2>/dev/null)"
  echo "time.zone=$(zone)"
  echo "locale=$(one LANG /etc/locale.conf /etc/default/locale)"
  echo "keyboard=$(one KEYMAP /etc/vconsole.conf)$(one XKBLAYOUT /etc/default/keyboard)"
  root
  echo "time.synchronised=$(clock)"
  echo "name.servers=$(sed -n 's/^nameserver *//p' /etc/resolv.conf 2>/dev/null | tr '\\n' ' ')"
}

${STARTS}starts() {
  echo "collector.starts=1"
  for device in $(lsblk -d -n -o NAME,TYPE 2>/dev/null | sed -n 's/ *disk$//p'); do
    case "$device" in
      loop* | ram* | zram* | zd* | md* | nbd* | fd*) ;;
      *) first_sector "$device" ;;
    esac
  done
  while read -r source where kind _; do
    [ "$kind" = vfat ] && efi_volume "$source" "$where"
  done < /proc/mounts
  return 0
}

iommu() {
  [ -d /sys/kernel/iommu_groups ] || return 0
  groups=$(find /sys/kernel/iommu_groups -type l 2>/dev/null)
  echo "\${groups:-/sys/kernel/iommu_groups: no groups}"
}

arrays() { # one section for all md arrays
  devices=$(sed -n 's|^\\(md[^ ]*\\) : .*|/dev/\\1|p' /proc/mdstat 2>/dev/null)
  # The list is split on purpose: one argument an array.
  [ -z "$devices" ] || section mdadm mdadm --detail $devices
}

smart() { # its exit status is a set of bits: 1 and 2 mean that nothing was read, the others are findings
  text=$(smartctl -n standby -j -a "$1" 2>/dev/null)
  status=$?
  if [ $((status & 3)) -ne 0 ]; then
    why=$(printf '%s\\n' "$text" | sed -n 's/.*"string": "\\(.*\\)",*$/\\1/p' | head -n 1 | cut -c 1-120)
    echo "absent smartctl $1 said: \${why:-nothing} (exit $status)"
  else
    emit smartctl "$status" "$text"
  fi
}

health() { # what each drive says of itself; -n standby does not wake a sleeping one
  if ! command -v smartctl >/dev/null 2>&1; then
    echo "absent smartctl the program smartctl is not installed here"
    return
  fi
  for device in $(lsblk -d -n -p -o NAME,TYPE 2>/dev/null | sed -n 's/ *disk$//p'); do
    case "$device" in
      */loop* | */ram* | */zram* | */zd* | */md* | */nbd* | */fd*) ;;
      *) smart "$device" ;;
    esac
  done
}

${BEGIN}  section lscpu lscpu -J
  section lsblk lsblk -J -b -O
  section starts starts
  section ip-address ip -j address
  section ip-link ip -j -d link
  section ip-route ip -j route
  section ss ss -H -tuln
  section lspci lspci -nnmm
  section lspci-verbose lspci -nnvmmk
  section lsusb lsusb
  section iommu-groups iommu
  section dmidecode dmidecode
  [ ! -d /sys/firmware/efi ] || section efibootmgr efibootmgr -v
  section lshw lshw -json -quiet
  section blkid blkid -o export
  section nvme-list nvme list -o json
  section sensors sensors -j
  [ ! -r /proc/mdstat ] || section mdstat cat /proc/mdstat
  arrays
  section zpool-status zpool status -P -L
  section zpool-list zpool list -Hp
  section zpool-import zpool import
  health
  echo "done"
}

${TAIL}`;

/**
 * The collector for BSD systems and appliances made of one: the same bundle from sysctl, geom, gpart, camcontrol,
 * ifconfig, netstat, pciconf and zpool, with dmidecode, efibootmgr and smartctl where they are installed.
 */
export const renderBsdCollector = (target: CollectorTarget): string => `${HEAD(target)}zone() {
  if [ -r /var/db/zoneinfo ]; then cat /var/db/zoneinfo
  elif [ -L /etc/localtime ]; then readlink /etc/localtime | sed 's|.*zoneinfo/||'
  fi
}

root() { # what "/" is mounted from, its kind, size and free space in KiB
  mount -p 2>/dev/null | while read -r source where kind _; do
    [ "$where" = / ] && echo "root.source=$source" && echo "root.kind=$kind"
  done
  df -P -k / 2>/dev/null | sed -n '2p' | { read -r _ size _ free _ && echo "root.size.kib=$size" && echo "root.free.kib=$free"; }
}

clock() { # a peer that the time service follows is marked with a star
  command -v ntpq >/dev/null 2>&1 || return 0
  peers=$(ntpq -pn 2>/dev/null) || return 0
  case "$peers" in *"
*"*) echo yes ;; *) echo no ;; esac
}

settings() {
  echo "collector.settings=1"
  echo "host.name=$(hostname)"
  echo "kernel=$(uname -srm)"
  case "$(sysctl -n machdep.bootmethod 2>/dev/null)" in UEFI) echo "firmware.mode=uefi" ;; BIOS) echo "firmware.mode=legacy" ;; esac
  echo "time.zone=$(zone)"
  echo "keyboard=$(sed -n 's/^keymap=//p' /etc/rc.conf 2>/dev/null | tr -d '"' | head -n 1)"
  root
  echo "time.synchronised=$(clock)"
  echo "name.servers=$(sed -n 's/^nameserver *//p' /etc/resolv.conf 2>/dev/null | tr '\\n' ' ')"
}

numbers() { # what a kernel does not know is left out, and stops nothing
  for key in hw.model hw.ncpu hw.physmem hw.machine_arch kern.smp.cores kern.smp.threads_per_core; do
    sysctl "$key" 2>/dev/null
  done
  return 0
}

${STARTS}starts() {
  echo "collector.starts=1"
  for device in $(sysctl -n kern.disks 2>/dev/null); do first_sector "$device"; done
  mount -p 2>/dev/null | while read -r source where kind _; do
    [ "$kind" = msdosfs ] && efi_volume "$source" "$where"
  done
  return 0
}

health() {
  command -v smartctl >/dev/null 2>&1 || { echo "absent smartctl the program smartctl is not installed here"; return; }
  for device in $(sysctl -n kern.disks 2>/dev/null); do
    text=$(smartctl -n standby -j -a "/dev/$device" 2>/dev/null)
    status=$?
    if [ $((status & 3)) -ne 0 ]; then echo "absent smartctl /dev/$device was not read (exit $status)"; else emit smartctl "$status" "$text"; fi
  done
}

${BEGIN}  section sysctl numbers
  section geom-disk geom disk list
  section gpart gpart list
  section starts starts
  section camcontrol camcontrol devlist
  section ifconfig ifconfig -a
  section netstat netstat -rn -f inet
  section sockstat sockstat -46l
  section pciconf pciconf -lv
  section dmidecode dmidecode
  section efibootmgr efibootmgr -v
  section zpool-status zpool status -P
  section zpool-list zpool list -Hp
  section zpool-import zpool import
  health
  echo "done"
}

${TAIL}`;
