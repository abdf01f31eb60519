// Makes what an emulated PC installs from Derrick for real, in .derrick/real: the kernel and the initial file system of Debian
// 13's network installer. What the archive does not have of the installer's own packages comes from its ordinary ones: the
// modules for drives (the same build of the kernel) and the programs that make ext4. Does nothing when it is there.
import { createHash } from "node:crypto";
import { spawnSync } from "node:child_process";
import {
  cpSync,
  existsSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  rmSync,
  symlinkSync,
  writeFileSync,
} from "node:fs";
import { dirname, join, resolve } from "node:path";
import { fileURLToPath } from "node:url";
import { gunzipSync } from "node:zlib";
import { installDebian, root } from "./setup.mjs";

export const real = resolve(root, ".derrick/real");
const own = fileURLToPath(import.meta.url);
const [SUITE, INSTALLER] = ["trixie", "debian-installer-13-netboot-amd64"];
const IMAGES = "usr/lib/debian-installer/images/13/amd64/text/debian-installer/amd64";
/** Ordinary packages in the place of installer packages that the archive may not have. */
const ORDINARY = "e2fsprogs libext2fs2t64 libcom-err2 libss2 libmount1 libfdisk1 libsmartcols1".split(" ");
const PROGRAMS = ["mke2fs", "tune2fs", "e2fsck", "badblocks", "resize2fs"];
const LINKS = {
  mke2fs: ["mkfs.ext2", "mkfs.ext3", "mkfs.ext4"],
  e2fsck: ["fsck.ext2", "fsck.ext3", "fsck.ext4"],
};
/** Parts of the kernel for which the installer has packages of its own. */
const MODULES =
  "drivers/ata drivers/scsi drivers/nvme drivers/block drivers/md drivers/usb/storage drivers/usb/host drivers/message drivers/virtio drivers/hid fs/ext4 fs/jbd2 fs/fat fs/nls fs/mbcache.ko.xz lib crypto arch block".split(
    " ",
  );
/** What belongs to one kernel is taken from elsewhere; what is about neither the drives nor the network here only takes time. */
const LEFT_OUT =
  /-modules-|kernel-image|btrfs|-cros|iscsi|isns|jfs|xfs|ntfs|brltty|speakup|espeak|alsa|libasound|wpa|wireless|crypto-dm|nbd-client|os2|gtk|atk|atspi|x11|xserver|libx|font/;
const PROVIDED = "ext2 ext3 ext4 ata sata scsi md nvme virtio".split(" ").map((m) => `${m}-modules`);

function sh(command, cwd = real) {
  const done = spawnSync("sh", ["-ec", command], { cwd, encoding: "utf8", maxBuffer: 2 ** 28 });
  if (done.status === 0) return done.stdout;
  throw new Error(`${done.stdout}${done.stderr}\nThe real installer was not made: ${command}`);
}

/** Where this machine has its packages from. */
export const archiveSite = () =>
  sh("apt-get indextargets --format '$(SITE) $(COMPONENT)'", root)
    .split("\n")
    .find((line) => line.endsWith(" main"))
    .split(" ")[0];

const get = async (path) => {
  const got = await fetch(`${archiveSite()}/${path}`, { headers: { "Accept-Encoding": "identity" } });
  if (!got.ok) throw new Error(`${path}: ${got.status}`);
  return Buffer.from(await got.arrayBuffer());
};

/** The entries of an index, each with its text and its fields. */
const entriesOf = (text) =>
  text
    .trim()
    .split("\n\n")
    .map((entry) => ({
      entry,
      field: (name) => new RegExp(`^${name}: (.*)$`, "m").exec(entry)?.[1] ?? "",
    }));

/** Unpacks a package of the suite into a folder; it is what the index says that it is. */
async function unpack(packages, name, into) {
  const { field } = packages.find((p) => p.field("Package") === name) ?? {};
  if (!field) throw new Error(`${SUITE} has no package ${name}`);
  const bytes = await get(field("Filename"));
  if (createHash("sha256").update(bytes).digest("hex") !== field("SHA256"))
    throw new Error(`${name} is not what the index says`);
  const file = join(real, "package.deb");
  writeFileSync(file, bytes);
  sh(`dpkg -x package.deb ${into} && rm package.deb`);
}

/** Of the installer's packages, those that the archive really has; what belongs to one kernel is taken from elsewhere. */
async function available(udebs) {
  const site = archiveSite();
  const wanted = udebs.filter((u) => !LEFT_OUT.test(u.field("Package")));
  const isThere = new Map();
  const queue = [...wanted];
  const worker = async () => {
    for (let one = queue.pop(); one; one = queue.pop()) {
      const { ok } = await fetch(`${site}/${one.field("Filename")}`, { method: "HEAD" });
      isThere.set(one, ok);
    }
  };
  await Promise.all(Array.from({ length: 12 }, worker));
  return { there: wanted.filter((u) => isThere.get(u)), missing: wanted.filter((u) => !isThere.get(u)) };
}

function fill(missing) {
  const at = join(real, "root");
  const [version] = readdirSync(join(at, "usr/lib/modules"));
  const kernel = join(real, "kernel/usr/lib/modules", version);
  for (const part of MODULES.filter((m) => existsSync(join(kernel, "kernel", m)))) {
    const to = join(at, "usr/lib/modules", version, "kernel", part);
    mkdirSync(dirname(to), { recursive: true });
    cpSync(join(kernel, "kernel", part), to, { recursive: true });
  }
  for (const list of ["modules.builtin", "modules.builtin.modinfo", "modules.order"])
    cpSync(join(kernel, list), join(at, "usr/lib/modules", version, list));
  sh(`chroot root depmod ${version} && cp -a ordinary/usr/lib/x86_64-linux-gnu/*.so* root/usr/lib/`);
  for (const program of PROGRAMS) {
    cpSync(join(real, "ordinary/usr/sbin", program), join(at, "usr/sbin", program));
    for (const link of LINKS[program] ?? []) symlinkSync(program, join(at, "usr/sbin", link));
  }
  cpSync(join(real, "ordinary/etc/mke2fs.conf"), join(at, "etc/mke2fs.conf"));
  const status = join(at, "var/lib/dpkg/status");
  const before = readFileSync(status, "utf8");
  const has = new Set(entriesOf(before).map((e) => e.field("Package")));
  const stands = missing
    .filter((u) => !has.has(u.field("Package")))
    .map((u) => ({ name: u.field("Package"), version: u.field("Version"), provides: u.field("Provides") }));
  stands.push({ name: `drive-modules-${version}-di`, version: "1", provides: PROVIDED.join(", ") });
  const said = stands.map(
    (s) =>
      `Package: ${s.name}\nStatus: install ok unpacked\nVersion: ${s.version}\n${s.provides ? `Provides: ${s.provides}\n` : ""}Description: from an ordinary package, or left out\n`,
  );
  writeFileSync(status, `${before.trimEnd()}\n\n${said.join("\n")}`);
}

export async function makeRealInstaller() {
  const done = join(real, ".complete");
  if (existsSync(done)) return;
  installDebian(["cpio", "xz-utils"], "what unpacks the installer");
  rmSync(real, { recursive: true, force: true });
  mkdirSync(join(real, "root"), { recursive: true });
  const index = async (part) =>
    gunzipSync(await get(`dists/${SUITE}/main/${part}binary-amd64/Packages.gz`)).toString("utf8");
  const text = await index("");
  const packages = entriesOf(text);
  const { there, missing } = await available(entriesOf(await index("debian-installer/")));
  writeFileSync(join(real, "packages"), text);
  writeFileSync(join(real, "udebs"), `${there.map((u) => u.entry).join("\n\n")}\n\n`);
  await unpack(packages, INSTALLER, "netboot");
  sh(`cp netboot/${IMAGES}/linux . && cd root && zcat ../netboot/${IMAGES}/initrd.gz | cpio -idm --quiet`);
  const [version] = readdirSync(join(real, "root/usr/lib/modules"));
  await unpack(packages, `linux-image-${version}`, "kernel");
  for (const name of ORDINARY) await unpack(packages, name, "ordinary");
  fill(missing);
  sh("cd root && find . | cpio -o -H newc --quiet | gzip -1 > ../initrd.gz");
  for (const gone of ["netboot", "kernel", "ordinary", "root"])
    rmSync(join(real, gone), { recursive: true, force: true });
  writeFileSync(done, "");
}

if (process.argv[1] === own) await makeRealInstaller();
