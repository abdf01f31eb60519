// Makes the tiny system that an emulated PC installs from Derrick, in .derrick/tiny: kernel, initial file system, and the
// disk that its installer writes, from Debian's kernel, busybox and GRUB, and beside them the loaders of Debian's iPXE. What is missing is installed or fetched; it does
// nothing when they are there and this file is no newer.
import { copyFileSync, existsSync, mkdirSync, readdirSync, rmSync, statSync, writeFileSync } from "node:fs";
import { basename, join, resolve } from "node:path";
import { spawnSync } from "node:child_process";
import { fileURLToPath } from "node:url";
import { installDebian, root } from "./setup.mjs";

export const tiny = resolve(root, ".derrick/tiny");
const own = fileURLToPath(import.meta.url);
const PACKAGES =
  "qemu-system-x86 ovmf ipxe-qemu iproute2 dnsmasq-base xorriso mtools fdisk grub-common grub-pc-bin grub-efi-amd64-bin".split(
    " ",
  );
const [INIT, DISK_MIB, ESP_MIB] = [resolve(root, "tests/fixtures/netboot/init"), 72, 64];
/** In the order in which each finds what it needs. */
const MODULES = [
  ...["drivers/virtio/virtio_ring.ko", "drivers/virtio/virtio.ko", "drivers/virtio/virtio_pci_modern_dev.ko"],
  ...["drivers/virtio/virtio_pci_legacy_dev.ko", "drivers/virtio/virtio_pci.ko", "net/core/failover.ko"],
  ...["drivers/net/net_failover.ko", "drivers/net/virtio_net.ko", "drivers/block/virtio_blk.ko"],
];

function sh(command, input) {
  const done = spawnSync("sh", ["-ec", command], { cwd: tiny, input, encoding: "utf8" });
  if (done.status === 0) return done.stdout;
  console.error(`${done.stdout}${done.stderr}\nThe tiny system was not made: ${command}`);
  return process.exit(1);
}

/** Kernel, busybox and iPXE out of Debian's packages, unpacked without being installed. */
function unpack() {
  mkdirSync(join(tiny, "x"), { recursive: true });
  sh("apt-get update -q");
  const needs = sh("apt-cache depends linux-image-cloud-amd64");
  const [, kernel] = /Depends: (linux-image-\S+)/.exec(needs) ?? [];
  sh(
    `apt-get download -q ${kernel} busybox-static ipxe && for d in *.deb; do dpkg -x $d x; done && rm *.deb`,
  );
}

function makeInitial() {
  const [version] = readdirSync(join(tiny, "x/lib/modules"));
  rmSync(join(tiny, "i"), { recursive: true, force: true });
  for (const d of ["bin", "m", "dev", "proc", "sys"]) mkdirSync(join(tiny, "i", d), { recursive: true });
  copyFileSync(join(tiny, "x/bin/busybox"), join(tiny, "i/bin/busybox"));
  MODULES.forEach((m, i) =>
    copyFileSync(join(tiny, "x/lib/modules", version, "kernel", m), join(tiny, `i/m/${i}.ko`)),
  );
  copyFileSync(INIT, join(tiny, "i/init"));
  sh("chmod 755 i/init && cd i && find . | ../x/bin/busybox cpio -o -H newc > ../i.cpio");
  sh("gzip -1 < i.cpio > initial.img && rm i.cpio");
  copyFileSync(join(tiny, "x/boot", `vmlinuz-${version}`), join(tiny, "kernel"));
  for (const loader of ["usr/lib/ipxe/undionly.kpxe", "usr/lib/ipxe/snponly.efi"])
    copyFileSync(join(tiny, "x", loader), join(tiny, basename(loader)));
}

const GRUB = [
  "serial --unit=0",
  "terminal_output serial",
  "echo 'disk: started'",
  "search --no-floppy --file /installed --set=root",
  "linux /kernel installed console=ttyS0 quiet",
  "initrd /initial.img",
  "boot",
].join("\n");
const GRUB_MODULES =
  "part_msdos fat normal linux serial terminal echo search search_fs_file minicmd configfile";

/** What a GRUB needs in it that asks over the network. */
const NET_MODULES = `${GRUB_MODULES} efinet net tftp http smbios read regexp test sleep chain part_gpt boot`;

/** A disk that starts under BIOS and UEFI, with the same kernel; what was installed is told by a word of its command line. */
function makeDisk() {
  writeFileSync(join(tiny, "grub.cfg"), `${GRUB}\n`);
  sh(
    `grub-mkimage -O x86_64-efi -p / -c grub.cfg -o grub.efi ${GRUB_MODULES}
     grub-mkimage -O x86_64-efi -p /grub -o grubnet.efi ${NET_MODULES}
     grub-mkimage -O i386-pc -p / -c grub.cfg -o core.img biosdisk ${GRUB_MODULES}
     rm -f esp.img && truncate -s ${ESP_MIB}M esp.img && mformat -i esp.img -F ::
     : > installed && mmd -i esp.img ::/EFI ::/EFI/BOOT
     mcopy -i esp.img grub.efi ::/EFI/BOOT/BOOTX64.EFI && mcopy -i esp.img kernel initial.img installed ::/
     rm -f disk.img && truncate -s ${DISK_MIB}M disk.img
     dd if=/usr/lib/grub/i386-pc/boot.img of=disk.img bs=446 count=1 conv=notrunc status=none
     dd if=core.img of=disk.img bs=512 seek=1 conv=notrunc status=none
     dd if=esp.img of=disk.img bs=1M seek=1 conv=notrunc status=none`,
  );
  sh("sfdisk -q --no-reread --wipe never disk.img", `2048,${ESP_MIB * 2048},ef,*\n`);
}

export function makeTinySystem() {
  const done = join(tiny, ".complete");
  installDebian(PACKAGES, "what an emulated PC is made of");
  const newest = Math.max(statSync(own).mtimeMs, statSync(INIT).mtimeMs);
  if (existsSync(done) && statSync(done).mtimeMs > newest) return;
  if (!existsSync(join(tiny, "x/boot"))) unpack();
  makeInitial();
  makeDisk();
  writeFileSync(done, "");
}

if (process.argv[1] === own) makeTinySystem();
