import { spawnSync } from "node:child_process";
import { chmodSync, existsSync, mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, describe, expect, it } from "vitest";
import { answerFileOf, textOf } from "@/core/answers";
import { aBuild, aDrive, shippedProfile, type BuildChanges } from "../support/builds";
import { A_HASH, A_KEY, anAccount } from "../support/keys";

// The script that installs a BSD, run by a shell before stand-ins of that system's own programs.

const folder = mkdtempSync(join(tmpdir(), "derrick-bsd-"));
afterAll(() => rmSync(folder, { recursive: true, force: true }));
const BYTES = 480_103_981_056;
const SEDGE = shippedProfile("sedge-bsd-14");
const HASHES = new Map([["root", A_HASH]]);
const told = (changes: BuildChanges = {}, hashes = HASHES) =>
  answerFileOf(aBuild({ profile: SEDGE, ...changes }), hashes);
function script(changes: BuildChanges = {}) {
  const answer = told(changes);
  if (answer.kind !== "file") throw new Error(JSON.stringify(answer));
  return { text: textOf(answer.file), ...answer.file };
}
const PAIR: BuildChanges = {
  drives: [aDrive("NV-0001", {}), aDrive("NV-0002", { seenAs: "nvme1n1" }), aDrive("CB-1", {})],
  sheet: { "storage.layout": "mirror", "storage.partners": [{ drive: "NV-0002", role: "member" }] },
};

interface Disk {
  name: string;
  serial: string;
  bytes?: number;
  mode?: string;
  holds?: string;
  table?: boolean;
}
const SOUND: Disk[] = [
  { name: "nda0", serial: "CB-1" },
  { name: "nda1", serial: "NV-0001" },
  { name: "nda2", serial: "NV-0002" },
];
let count = 0;

/** Runs a script beside these disks; what it called of programs that write, in order, and the files of the new system. */
function run(
  text: string,
  disks: readonly Disk[],
  more: { labels?: string; sum?: string; pool?: boolean } = {},
) {
  const root = join(folder, `system-${(count += 1)}`);
  const bin = join(root, "bin");
  const [mnt, sets] = [join(root, "mnt"), join(root, "dist")];
  for (const dir of [
    bin,
    sets,
    "etc/ssh",
    "boot",
    "tmp",
    "var/tmp",
    "usr/share/zoneinfo/Europe",
    "usr/share/vt/keymaps",
  ])
    mkdirSync(dir.startsWith("/") ? dir : join(mnt, dir), { recursive: true });
  for (const file of ["boot/loader.efi", "usr/share/zoneinfo/Europe/London", "usr/share/vt/keymaps/gb.kbd"])
    writeFileSync(join(mnt, file), file);
  writeFileSync(join(sets, "MANIFEST"), "base.txz\tsum-of-base\nkernel.txz\tsum-of-kernel\n");
  const stub = (name: string, body: string): void => {
    writeFileSync(join(bin, name), `#!/bin/sh\n${body}\n`);
    chmodSync(join(bin, name), 0o755);
  };
  const each = (of: (d: Disk) => string) => disks.map((d) => `*${d.name}) ${of(d)} ;;`).join(" ");
  const asked = `for last; do :; done; case $last in`;
  const log = `printf '%s\\n' "\${0##*/} $*" >>"${root}/calls"`;
  stub(
    "geom",
    `${asked} ${each((d) => `printf ' ident: %s\\n   Mode: %s\\n' '${d.serial}' ${d.mode ?? "r0w0e0"}`)} esac`,
  );
  stub("diskinfo", `${asked} ${each((d) => `echo "$1 512 ${d.bytes ?? BYTES}"`)} esac`);
  stub("fstyp", `${asked} ${each((d) => (d.holds ? `echo ${d.holds}` : "exit 1"))} esac`);
  stub(
    "gpart",
    `if [ "$1" = show ]; then ${asked} ${each((d) => (d.table ? "exit 0" : "exit 1"))} esac; fi; ${log}`,
  );
  stub("zpool", `if [ "$1" = list ]; then exit ${more.pool ? 0 : 1}; fi; ${log}`);
  stub("sysctl", `echo "${disks.map((d) => d.name).join(" ")}"`);
  stub("glabel", `printf '%s\\n' "${more.labels ?? ""}"`);
  stub(
    "ifconfig",
    `if [ "$1" = -l ]; then echo "igb0 igb1"; elif [ "$1" = igb1 ]; then echo " ether 02:61:0a:00:00:14"; fi`,
  );
  stub("sha256", `case $2 in *base*) echo ${more.sum ?? "sum-of-base"} ;; *) echo sum-of-kernel ;; esac`);
  // The stand-in of a stream editor takes the other system's way of naming no backup.
  stub("sed", `if [ "$1" = -i ]; then shift 2; exec /bin/sed -i "$@"; fi; exec /bin/sed "$@"`);
  stub("id", "echo 0");
  stub("uname", "echo amd64");
  for (const name of ["newfs_msdos", "zfs", "gmirror", "tar", "mount", "umount", "chroot"]) stub(name, log);
  stub(
    "pw",
    `case "$*" in *-H*) hash=$(cat) ;; *) hash= ;; esac; printf '%s\\n' "pw $* $hash" >>"${root}/calls"`,
  );
  const here = text.replaceAll("/mnt", mnt).replaceAll("/usr/sedge-dist", sets);
  const { status, stderr } = spawnSync("sh", ["-c", here], {
    encoding: "utf8",
    env: { ...process.env, PATH: `${bin}:${process.env.PATH}` },
  });
  const read = (path: string): string => (existsSync(path) ? readFileSync(path, "utf8") : "");
  const calls = read(join(root, "calls")).replaceAll(mnt, "/mnt").split("\n").filter(Boolean);
  return { status, said: stderr, calls, file: (path: string) => read(join(mnt, path)) };
}

// A hash in single quotes is meant to stay as it is (SC2016).
it("is a sound script, for one drive and for several, with UEFI and without", () => {
  for (const sheet of [
    {},
    { "boot.mode": "legacy" },
    PAIR.sheet,
    { ...PAIR.sheet, "storage.layout": "stripe" },
  ]) {
    const { status, stdout, error } = spawnSync("shellcheck", ["-s", "sh", "-e", "SC2016", "-"], {
      input: script({ ...PAIR, sheet }).text,
      encoding: "utf8",
    });
    expect([error, status, stdout]).toEqual([undefined, 0, ""]);
  }
});

it("makes a mirror of the planned drives, whatever they are called today, and no other drive is named", () => {
  const { status, said, calls, file } = run(script(PAIR).text, SOUND);
  expect([status, said]).toEqual([0, ""]);
  expect(calls.filter((c) => /nda0|CB/.test(c))).toEqual([]);
  expect(calls.slice(0, 3)).toEqual([
    "gpart destroy -F nda1",
    "zpool labelclear -f /dev/nda1",
    "gpart create -s gpt nda1",
  ]);
  expect(calls).toContain(
    "zpool create -f -R /mnt -o ashift=12 -O compression=on -O atime=off -O mountpoint=none sedge-root mirror /dev/nda1p3 /dev/nda2p3",
  );
  expect(calls).toContain("gmirror label -b prefer wrk-hv1-swap /dev/nda1p2 /dev/nda2p2");
  expect(file("etc/fstab")).toBe("/dev/mirror/wrk-hv1-swap none swap sw 0 0\n");
  // Either drive can be started from alone.
  expect(calls.filter((c) => c.startsWith("mount"))).toEqual(
    ["nda1p1", "nda2p1"].map((d) => `mount -t msdosfs /dev/${d} /mnt/boot/efi`),
  );
  expect(file("boot/efi/EFI/BOOT/BOOTX64.EFI")).toBe("boot/loader.efi");
  expect(file("boot/loader.conf")).toBe('zfs_load="YES"\ngeom_mirror_load="YES"\n');
  // The port by its MAC: what a Linux called it means nothing here.
  expect(file("etc/rc.conf")).toContain("ifconfig_igb1='inet 10.61.10.20 netmask 255.255.255.0'\n");
  expect(file("etc/rc.conf")).toContain('keymap="gb"\n');
  expect(file("etc/rc.conf")).not.toMatch(/eno1|derrick_port/);
  expect(file("etc/localtime")).toContain("Europe/London");
  expect(calls.at(-1)).toBe("zpool export sedge-root");
});

it("starts in the old way from the loader in a part of its own, and swaps on each drive of a stripe", () => {
  const { calls, file } = run(
    script({ ...PAIR, sheet: { ...PAIR.sheet, "storage.layout": "stripe", "boot.mode": "legacy" } }).text,
    SOUND,
  );
  expect(calls).toContain("gpart bootcode -b /boot/pmbr -p /boot/gptzfsboot -i 1 nda1");
  // The first stage reads at most 545 KB of it.
  expect(calls.find((c) => c.includes("-boot1"))).toMatch(/ -s 512k /);
  expect(file("etc/fstab").split("\n")).toHaveLength(3);
  expect(calls.some((c) => /^(gmirror|newfs|mount)/.test(c))).toBe(false);
});

it("lets people in by what was sealed and by keys, and nobody else", () => {
  const accounts = [
    anAccount("root", "super-user", "none"),
    anAccount("jpell", "administrator", "key", [A_KEY]),
    anAccount("probe", "service", "none"),
  ];
  const { calls, file, status } = run(script({ sheet: { "answers.accounts": accounts } }).text, SOUND);
  expect([status, calls.filter((c) => /^(pw|chroot)/.test(c))]).toEqual([
    0,
    [
      "pw -R /mnt usermod -n root -h - ",
      "pw -R /mnt useradd -n jpell -m -s /bin/sh -G wheel -h - ",
      "chroot /mnt chown -R jpell /home/jpell/.ssh",
      "pw -R /mnt useradd -n probe -d /nonexistent -s /usr/sbin/nologin -h - ",
    ],
  ]);
  expect(file("home/jpell/.ssh/authorized_keys")).toBe(`${A_KEY}\n`);
  expect(file("etc/ssh/sshd_config")).toBe("PasswordAuthentication no\nKbdInteractiveAuthentication no\n");
  const sealed = run(script().text, SOUND);
  expect(sealed.calls).toContain(`pw -R /mnt usermod -n root -H 0 ${A_HASH}`);
  expect(sealed.file("etc/ssh/sshd_config")).toBe("");
  // Nobody is asked for a password where it runs, so that one without a hash opens nothing.
  expect(told({}, new Map())).toMatchObject({ kind: "open", gaps: [{ path: "answers.accounts" }] });
});

describe("writes nothing", () => {
  const [other, target, second] = SOUND as [Disk, Disk, Disk];
  it.each<[string, Disk[], RegExp, Parameters<typeof run>[2]?]>([
    ["a drive is absent", [other, target], /no drive answers/],
    ["a serial is there twice", [...SOUND, { ...target, name: "da9" }], /two drives answer/],
    [
      "a drive has another size",
      [other, target, { ...second, bytes: BYTES + 512 }],
      /and 480103981056 are planned/,
    ],
    ["a drive is in use", [other, target, { ...second, mode: "r1w1e1" }], /is in use/],
    ["a table stands on a drive", [other, target, { ...second, table: true }], /a table of parts/],
    [
      "a drive holds what nobody knew of",
      [other, { ...target, holds: "zfs" }, second],
      /knows nothing of: zfs/,
    ],
    ["a set is damaged", SOUND, /base\.txz is damaged/, { sum: "other" }],
    ["the pool is here already", SOUND, /a pool of this name/, { pool: true }],
  ])("where %s", (_, disks, words, more = {}) => {
    const { status, said, calls } = run(script(PAIR).text, disks, more);
    expect([status, calls]).toEqual([1, []]);
    expect(said).toMatch(words);
  });

  it("where another drive has a part of the same label, or no port has the MAC", () => {
    const stripe = script({ ...PAIR, sheet: { ...PAIR.sheet, "storage.layout": "stripe" } }).text;
    const taken = run(stripe, SOUND, { labels: "gpt/wrk-hv1-swap2  N/A  nda0p2" });
    expect([taken.status, taken.calls]).toEqual([1, []]);
    expect(taken.said).toMatch(/nda0p2 is called wrk-hv1-swap2/);
    expect(run(stripe, SOUND, { labels: "gpt/wrk-hv1-swap2  N/A  nda2p2" }).status).toBe(0);
    const lost = run(stripe.replaceAll("02:61:0a:00:00:14", "02:61:0a:00:00:15"), SOUND);
    expect([lost.status, lost.calls]).toEqual([1, []]);
    expect(lost.said).toMatch(/no port has the MAC/);
  });
});

it("takes a serial of any signs for itself, and runs none of it", () => {
  for (const serial of ["A;touch x", "$(touch x)", "it's", 'a"b', "`id`", "a*b", "-n", "END_OF_FILE"]) {
    const { text } = script({
      drives: [aDrive("NV-0001", { serial }), aDrive("B", { serial: `x${serial}` })],
    });
    const bare = serial.replace(/\s/g, "").replaceAll("'", `'\\''`);
    const { status, calls } = run(text, [{ name: "ada0", serial: bare }]);
    expect([serial, status, calls[0]]).toEqual([serial, 0, "gpart destroy -F ada0"]);
  }
  expect(existsSync("x")).toBe(false);
});
