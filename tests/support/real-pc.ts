// One emulated PC with a drive of each kind: it starts over the network from Derrick, and Debian's own installer does what
// Derrick's answer file says. Tells as JSON how far it came, and which drives were written to.
import { createHash } from "node:crypto";
import { execFileSync, spawn } from "node:child_process";
import {
  createReadStream,
  mkdirSync,
  mkdtempSync,
  readFileSync,
  rmSync,
  truncateSync,
  writeFileSync,
} from "node:fs";
import { createServer } from "node:http";
import type { AddressInfo } from "node:net";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { importAll } from "@/server/exports";
import { armMachine } from "@/server/netboot/arm";
import { bootBoard } from "@/server/netboot/board";
import { serveBoot } from "@/server/netboot/serve";
import { sealSecret, secretsView } from "@/server/seals";
import { makeReady } from "./armed";
import { INDEXES, serveArchive } from "./archive";
import { ARMED } from "./boot-image";
import { desk } from "./desk";

const REAL = ".derrick/real";
const HOST = "10.61.20.1";
const GIB = 2 ** 30;
const BYTES = { target: 8 * GIB, other: 64 * 2 ** 20 };
const bytesOf = (kind: string): number => (kind === target ? BYTES.target : BYTES.other);

export const KINDS = {
  nvme: { serial: "RLN0001", media: "nvme" },
  sata: { serial: "RLA0002", media: "flash" },
  scsi: { serial: "RLS0003", media: "spinning" },
  sas: { serial: "RLW0004", media: "spinning" },
  virtio: { serial: "RLV0005", media: "flash" },
  usb: { serial: "RLU0006", media: "usb" },
} as const;
type Kind = keyof typeof KINDS;
const target = process.argv[2] as Kind;
const until = process.argv[3] ?? "written";

const folder = mkdtempSync(join(tmpdir(), "derrick-real-"));
process.env.DERRICK_DB_URL = `file:${folder}/real.db`;

// The image: what is started over the network lies inside it.
const tree = join(folder, "tree");
execFileSync("mkdir", ["-p", `${tree}/install`]);
execFileSync("cp", [`${REAL}/linux`, `${tree}/install/kernel`]);
execFileSync("cp", [`${REAL}/initrd.gz`, `${tree}/install/initrd.gz`]);
const IMAGE = "millrace-12-x86_64.iso";
execFileSync("xorrisofs", ["-R", "-quiet", "-o", join(folder, IMAGE), tree], { stdio: "pipe" });
rmSync(tree, { recursive: true });
truncateSync(join(folder, IMAGE), 256 * 2 ** 20);
process.env.DERRICK_IMAGE_DIR = folder;

const archive = await serveArchive(
  "trixie",
  {
    [INDEXES[0]]: readFileSync(`${REAL}/udebs`, "utf8"),
    [INDEXES[1]]: readFileSync(`${REAL}/packages`, "utf8"),
  },
  `${REAL}/archive`,
);
let base = "";
const boot = createServer((request, response) => {
  void desk("boot service").then((d) => serveBoot(d, base, request, response));
});
await new Promise<void>((resolve) => boot.listen(0, "127.0.0.1", resolve));
base = `http://${HOST}:${(boot.address() as AddressInfo).port}`;
process.env.DERRICK_BOOT_URL = base;

const demo = JSON.parse(readFileSync("demo/marrowby-water.json", "utf8"));
const machine = demo.machines.find((m: { id: string }) => m.id === "m-tho-a");
machine.document.facts.firmware = {
  ...machine.document.facts.firmware,
  mode: "legacy",
  order: [],
  entries: [],
};
machine.document.facts.drives = Object.entries(KINDS).map(([kind, { serial, media }]) => ({
  ...{
    id: serial,
    serial,
    wwn: null,
    model: `Alder ${kind}`,
    sizeBytes: bytesOf(kind),
    media,
    seenAs: kind,
    contents: [],
  },
}));
const image = demo.images.find((i: { id: string }) => i.id === "i-lowland-7");
Object.assign(image.document, {
  name: "Millrace 12",
  profile: "millrace",
  version: "12",
  fileName: IMAGE,
  sizeBytes: 256 * 2 ** 20,
});
const build = demo.builds.find((b: { id: string }) => b.id === ARMED.build);
Object.assign(build.sheet.boot, { mode: "legacy", secureBoot: "off" });
build.sheet.storage.target = KINDS[target].serial;
build.sheet.network.school = "fixed";
build.sheet.network.nameServers = ["10.61.20.2"];
build.sheet.answers.source = `http://${HOST}:${archive.port}/debian`;
const site = demo.sites.find((s: { id: string }) => s.id === ARMED.site);
site.document.segments[0].nameServers = ["10.61.20.2"];
build.history = [];
const profile = demo.profiles.find((p: { key: string }) => p.key === "millrace");
const WORDS =
  "console=ttyS0 DEBIAN_FRONTEND=text anna/no_kernel_modules=true debian-installer/allow_unauthenticated=true";
profile.yaml = profile.yaml.replace(
  "initrd: [/install/initrd.gz] }",
  `initrd: [/install/initrd.gz], words: [${WORDS.split(" ").join(", ")}] }`,
);
const loaded = await importAll(await desk(), JSON.stringify(demo), { rebase: false });
if (!loaded.ok) throw new Error(JSON.stringify(loaded.problems));
const crypt = (salt: string) =>
  execFileSync("openssl", ["passwd", "-6", "-salt", salt, "Real-Plum-7-tango"], { encoding: "utf8" }).trim();
const { salt } = (await secretsView(await desk(), ARMED.build))!;
const sealed = await sealSecret(await desk(), ARMED.build, { opens: "jpell", hash: crypt("aSaltOfItsOwn"), toMark: crypt(salt) });
if (!sealed.ok) throw new Error(JSON.stringify(sealed.problems));
await makeReady(KINDS[target].serial);
const armed = await armMachine(await desk(), ARMED.build, { typed: ARMED.serial, minutes: 60 });
if (!armed.ok) throw new Error(armed.problems.map((p) => p.message).join(" "));

// What Derrick's own text for a DHCP server gives to iPXE alone; this network has no DHCP server that can tell who asks, and the
// installer would take an address that it is given for that of its answers.
const tftp = join(folder, "tftp");
mkdirSync(tftp);
writeFileSync(join(tftp, "boot.ipxe"), `#!ipxe\nchain ${base}/boot.ipxe\n`);

const disks = Object.keys(KINDS).map((kind, i) => {
  const path = join(folder, `${kind}.raw`);
  writeFileSync(path, "");
  truncateSync(path, bytesOf(kind));
  if (kind !== target) execFileSync("mkfs.ext4", ["-q", "-L", `other-${i}`, path]);
  return { kind: kind as Kind, path };
});
const hashOf = async (path: string): Promise<string> => {
  const hash = createHash("sha256");
  for await (const part of createReadStream(path)) hash.update(part as Buffer);
  return hash.digest("hex");
};
const before = await Promise.all(disks.map(({ path, kind }) => (kind === target ? "" : hashOf(path))));
const device = (kind: Kind): string[] => {
  const { serial } = KINDS[kind];
  const boots = kind === target ? ",bootindex=2" : "";
  return {
    nvme: ["-device", `nvme,drive=nvme,serial=${serial}${boots}`],
    sata: ["-device", `ide-hd,drive=sata,bus=ide.0,serial=${serial}${boots}`],
    scsi: [
      "-device",
      "lsi53c895a,id=lsi",
      "-device",
      `scsi-hd,drive=scsi,bus=lsi.0,serial=${serial}${boots}`,
    ],
    sas: [
      "-device",
      "mptsas1068,id=mpt",
      "-device",
      `scsi-hd,drive=sas,bus=mpt.0,serial=${serial},wwn=0x5000c50012345678${boots}`,
    ],
    virtio: ["-device", `virtio-blk-pci,drive=virtio,serial=${serial}${boots}`],
    usb: ["-device", "qemu-xhci", "-device", `usb-storage,drive=usb,serial=${serial}${boots}`],
  }[kind];
};
const console_ = process.env.REAL_CONSOLE ?? join(folder, "console");
const pc = spawn(
  "qemu-system-x86_64",
  [
    ...[
      "-accel",
      "tcg,thread=multi",
      "-m",
      "1536",
      "-smp",
      "2",
      "-display",
      "none",
      "-monitor",
      "none",
      "-machine",
      "q35,graphics=off",
    ],
    ...[
      "-serial",
      `file:${console_}`,
      "-smbios",
      `type=1,manufacturer=Pippin,product=3,serial=${ARMED.serial}`,
    ],
    ...[
      "-netdev",
      `user,id=n,net=10.61.20.0/26,host=${HOST},dns=10.61.20.2,dhcpstart=10.61.20.32,ipv6=off,tftp=${tftp},bootfile=boot.ipxe`,
    ],
    ...["-device", `virtio-net-pci,netdev=n,mac=${ARMED.mac},bootindex=1`],
    ...disks.flatMap(({ kind, path }) => [
      "-drive",
      `if=none,id=${kind},format=raw,file=${path}`,
      ...device(kind),
    ]),
  ],
  { stdio: ["ignore", "inherit", "inherit"] },
);
const ended = new Promise<string>((resolve) => pc.on("close", () => resolve("ended")));
const late = new Promise<string>((resolve) =>
  setTimeout(() => resolve("late"), Number(process.env.REAL_LIMIT ?? 600) * 1000).unref(),
);
const end = await Promise.race([ended, late]);
pc.kill();
await ended;
const after = await Promise.all(disks.map(({ path, kind }) => (kind === target ? "" : hashOf(path))));
const board = await bootBoard(await desk());
console.log(
  JSON.stringify(
    {
      end,
      until,
      written: disks.filter((_, i) => before[i] !== after[i]).map((d) => d.kind),
      missing: archive.missing,
      rows: board.rows.map((r) => r.state),
    },
    null,
    1,
  ),
);
console.log(execFileSync("sfdisk", ["-d", disks.find((d) => d.kind === target)!.path], { encoding: "utf8" }));
archive.close();
boot.close();
if (!process.env.REAL_KEEP) rmSync(folder, { recursive: true, force: true });
else console.log(folder);
process.exit(0);
