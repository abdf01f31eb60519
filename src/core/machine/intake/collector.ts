import { BEGIN, HEAD, STARTS, TAIL, type CollectorTarget } from "./collector-parts";

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
