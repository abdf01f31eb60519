// One emulated PC with a drive of each kind: it starts over the network from Derrick, and Debian's own installer does on it what
// Derrick's answer file says. Tells as JSON how far it came, which drives were written to, and how the planned one is cut.
//   npx tsx tests/support/real-pc.ts KIND [written | installed] [KIND,KIND: the drives that it has, or all] [https]
// With "https" a loader that believes Derrick's certificate is played by this program; what it reads starts the PC.
import { createHash } from "node:crypto";
import { createSocket } from "node:dgram";
import { execFileSync, spawn } from "node:child_process";
import {
  closeSync,
  copyFileSync,
  mkdirSync,
  mkdtempSync,
  openSync,
  readFileSync,
  readSync,
  rmSync,
  truncateSync,
  writeFileSync,
} from "node:fs";
import { createServer, type IncomingMessage, type ServerResponse } from "node:http";
import { createServer as createTlsServer, get as getSecure } from "node:https";
import type { AddressInfo } from "node:net";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { checkServerIdentity, type PeerCertificate } from "node:tls";
import { bootRows } from "@/db";
import { closeDatabase } from "@/server/database";
import { importAll } from "@/server/exports";
import { armMachine } from "@/server/netboot/arm";
import { bootPair, bootTrust } from "@/server/netboot/certificate";
import { bootBoard } from "@/server/netboot/board";
import { serveBoot } from "@/server/netboot/serve";
import { sealSecret, secretsView } from "@/server/seals";
import { INDEXES, serveArchive } from "./archive";
import { makeReady } from "./armed";
import { ARMED } from "./boot-image";
import { desk } from "./desk";
import { bytesOf, IMAGE, KIND_NAMES, KINDS, realDemo } from "./real-plan";

const REAL = ".derrick/real";
/** The emulator's own network: it answers as the first of these, and hands on what is asked of it. */
const [HOST, NAMES] = ["10.61.20.1", "10.61.20.2"];
const target = KIND_NAMES.find((kind) => kind === process.argv[2]);
const until = process.argv[3] ?? "written";
const named = process.argv[4] ?? "all";
const drives = KIND_NAMES.filter((kind) => named === "all" || named.split(",").includes(kind));
const isSecure = process.argv[5] === "https";
if (!target) throw new Error(`The planned drive is one of ${KIND_NAMES.join(", ")}.`);
const LIMIT_SECONDS = until === "written" ? 1800 : 5400;

const folder = mkdtempSync(join(tmpdir(), "derrick-real-"));
process.env.DERRICK_DB_URL = `file:${folder}/real.db`;
process.env.DERRICK_IMAGE_DIR = folder;

// The image: what is started over the network lies inside it.
const tree = join(folder, "tree/install");
mkdirSync(tree, { recursive: true });
copyFileSync(`${REAL}/linux`, join(tree, "kernel"));
copyFileSync(`${REAL}/initrd.gz`, join(tree, "initrd.gz"));
execFileSync("xorrisofs", ["-R", "-quiet", "-o", join(folder, IMAGE.name), join(folder, "tree")], {
  stdio: "pipe",
});
rmSync(join(folder, "tree"), { recursive: true });
truncateSync(join(folder, IMAGE.name), IMAGE.bytes);

const index = (name: string): string => readFileSync(`${REAL}/${name}`, "utf8");
const indexes = { [INDEXES[0]]: index("udebs"), [INDEXES[1]]: index("packages") };
const archive = await serveArchive("trixie", indexes, `${REAL}/archive`);
let base = "";
const pair = await bootPair(`https://${HOST}`);
Object.assign(process.env, { DERRICK_BOOT_URL: `http://${HOST}`, DERRICK_BOOT_TLS_URL: `https://${HOST}` });
const { pin } = bootTrust()!;
const serve = (request: IncomingMessage, response: ServerResponse) =>
  void desk("boot service").then((d) => serveBoot(d, base, request, response, isSecure ? pin : ""));
const boot = isSecure
  ? createTlsServer({ key: pair.key, cert: pair.certificate }, serve)
  : createServer(serve);
await new Promise<void>((resolve) => boot.listen(0, "127.0.0.1", resolve));
const { port } = boot.address() as AddressInfo;
base = `http${isSecure ? "s" : ""}://${HOST}:${port}`;
process.env.DERRICK_BOOT_URL = `http://${HOST}:${port}`;

// What the installer writes down goes over the network as well: nobody can look into its memory afterwards.
let syslog = "";
const logged = createSocket("udp4").on(
  "message",
  (line) => (syslog += `${line.toString("latin1").trim()}\n`),
);
await new Promise<void>((resolve) => logged.bind(0, "127.0.0.1", resolve));
const words = [`log_host=${HOST}`, `log_port=${logged.address().port}`];
const site = `http://${HOST}:${archive.port}/debian`;
const loaded = await importAll(await desk(), realDemo(target, drives, site, NAMES, words), { rebase: false });
if (!loaded.ok) throw new Error(JSON.stringify(loaded.problems));
const crypt = (salt: string): string =>
  execFileSync("openssl", ["passwd", "-6", "-salt", salt, "Real-Plum-7-tango"], { encoding: "utf8" }).trim();
const { salt } = (await secretsView(await desk(), ARMED.build))!;
await sealSecret(await desk(), ARMED.build, {
  ...{ opens: "jpell", hash: crypt("aSaltOfItsOwn"), toMark: crypt(salt) },
});
await makeReady(KINDS[target].serial);
const armed = await armMachine(await desk(), ARMED.build, {
  typed: ARMED.serial,
  minutes: 120,
  asksCode: false,
});
if (!armed.ok) throw new Error(armed.problems.map((p) => p.message).join(" "));

// iPXE alone is to be led to Derrick, as Derrick's own text for a DHCP server does it: an installer takes an address that a DHCP
// server gives it for that of its answers. The emulator's server gives all the same, so it gives a name without an address.
const tftp = join(folder, "tftp");
mkdirSync(tftp);
writeFileSync(join(tftp, "boot.ipxe"), `#!ipxe\nchain ${base}/boot.ipxe\n`);

const disks = drives.map((kind, i) => {
  const path = join(folder, `${kind}.raw`);
  writeFileSync(path, "");
  truncateSync(path, bytesOf(kind, target));
  if (kind !== target) execFileSync("mkfs.ext4", ["-q", "-L", `other-${i}`, path]);
  return { kind, path };
});
const sumOf = (path: string): string => createHash("sha256").update(readFileSync(path)).digest("hex");
const others = disks.filter(({ kind }) => kind !== target);
const planned = disks.find(({ kind }) => kind === target)!.path;
const before = others.map(({ path }) => sumOf(path));

/** Start of each partition in the first sector of the planned drive, with its type and whether it is active. */
function table(): { type: string; active: boolean; start: number; sectors: number }[] {
  const [fd, sector] = [openSync(planned, "r"), Buffer.alloc(512)];
  readSync(fd, sector, 0, 512, 0);
  closeSync(fd);
  if (sector.readUInt16LE(510) !== 0xaa55) return [];
  return [446, 462, 478, 494]
    .filter((at) => sector[at + 4] !== 0)
    .map((at) => ({
      ...{ type: sector[at + 4]!.toString(16), active: sector[at] === 0x80 },
      ...{ start: sector.readUInt32LE(at + 8), sectors: sector.readUInt32LE(at + 12) },
    }));
}

/** Whether partman has written: the root that the sheet wants is cut, and a file system stands on it. */
function isWritten(): boolean {
  const root = table().find(({ type }) => type === "83");
  if (!root) return false;
  const [fd, head] = [openSync(planned, "r"), Buffer.alloc(2)];
  readSync(fd, head, 0, 2, root.start * 512 + 1080);
  closeSync(fd);
  return head.readUInt16LE(0) === 0xef53;
}
const stateNow = async () => (await bootBoard(await desk())).rows[0]?.state;
const isThere = async (): Promise<boolean> =>
  until === "written" ? isWritten() : ["done", "failed"].includes((await stateNow())?.status ?? "");

/** A file of the boot service, as a loader reads it that believes Derrick's certificate for its address and no other. */
const readSecure = (path: string): Promise<Buffer> =>
  new Promise((resolve, reject) => {
    const how = { host: "127.0.0.1", port, path, ca: pair.certificate, servername: "" };
    const checked = {
      checkServerIdentity: (_: string, of: PeerCertificate) => checkServerIdentity(HOST, of),
    };
    getSecure({ ...how, ...checked }, (response) => {
      const parts: Buffer[] = [];
      response.on("data", (part: Buffer) => parts.push(part)).on("end", () => resolve(Buffer.concat(parts)));
    }).on("error", reject);
  });

/** What the script of the boot service starts, read over HTTPS, as the emulator takes it. */
async function startedBy(): Promise<string[]> {
  const script = (await readSecure(`/script?mac=${ARMED.mac}&serial=${ARMED.serial}`)).toString();
  const pathOf = (url: string): string => url.slice(base.length);
  const [, kernel = "", words = ""] = /^kernel (\S+) (.*) \|\| goto failed$/m.exec(script) ?? [];
  const parts = [...script.matchAll(/^initrd --name \S+ (\S+)/gm)].map(([, url]) => pathOf(url!));
  writeFileSync(join(folder, "kernel"), await readSecure(pathOf(kernel)));
  const read: Buffer[] = [];
  for (const part of parts) {
    const bytes = await readSecure(part);
    // Each begins at a multiple of four bytes, as a loader puts them.
    read.push(bytes, Buffer.alloc((4 - (bytes.length % 4)) % 4));
  }
  writeFileSync(join(folder, "initrd"), Buffer.concat(read));
  return ["-kernel", join(folder, "kernel"), "-initrd", join(folder, "initrd"), "-append", words];
}

const console_ = join(folder, "console");
const pc = spawn(
  "qemu-system-x86_64",
  [
    ...["-accel", "tcg,thread=multi", "-smp", "2", "-m", "1536", "-machine", "q35,graphics=off"],
    ...["-display", "none", "-monitor", "none", "-serial", `file:${console_}`],
    ...["-smbios", `type=1,manufacturer=Pippin,product=3,serial=${ARMED.serial}`],
    "-netdev",
    `user,id=n,net=10.61.20.0/26,host=${HOST},dns=${NAMES},dhcpstart=10.61.20.32,ipv6=off,tftp=${tftp},bootfile=boot.ipxe`,
    ...["-device", `virtio-net-pci,netdev=n,mac=${ARMED.mac},bootindex=1`],
    ...(isSecure ? await startedBy() : []),
    ...disks.flatMap(({ kind, path }) => [
      ...["-drive", `if=none,id=${kind},format=raw,file=${path}`],
      ...KINDS[kind].devices.flatMap((device, i, all) => [
        "-device",
        device.replace("{serial}", KINDS[kind].serial) +
          (kind === target && i === all.length - 1 ? ",bootindex=2" : ""),
      ]),
    ]),
  ],
  { stdio: ["ignore", "ignore", "inherit"] },
);
let isOn = true;
pc.on("close", () => (isOn = false));
const began = performance.now();
let end = "did not get there";
while (isOn && performance.now() - began < LIMIT_SECONDS * 1000) {
  await new Promise((resolve) => setTimeout(resolve, 3000));
  if (!(await isThere())) continue;
  end = until;
  break;
}
pc.kill();
while (isOn) await new Promise((resolve) => setTimeout(resolve, 200));
/** A file of the installed system, read from outside; "" where there is none. */
function inside(path: string): string {
  const root = table().find(({ type }) => type === "83");
  if (!root) return "";
  const at = `${planned}?offset=${root.start * 512}`;
  return execFileSync("debugfs", ["-R", `cat ${path}`, at], { encoding: "utf8", stdio: "pipe" });
}
const state = await stateNow();
const log = await bootRows.log((await desk()).db, armed.value.id);
const told = {
  ...{ end, seconds: Math.round((performance.now() - began) / 1000), state },
  log: log.map(({ event }) => event),
  table: table(),
  touched: others.filter(({ path }, i) => sumOf(path) !== before[i]).map(({ kind }) => kind),
  interfaces: inside("/etc/network/interfaces"),
  left: ["/usr/local/sbin/derrick-first-boot", "/etc/systemd/system/derrick-first-boot.service"].filter(
    (path) => inside(path) !== "",
  ),
  missing: archive.missing,
  console: readFileSync(console_, "latin1").slice(-20_000),
  syslog: syslog.slice(-20_000),
};
archive.close();
logged.close();
boot.closeAllConnections();
boot.close();
await closeDatabase();
if (process.env.DERRICK_KEEP) console.error(folder);
else rmSync(folder, { recursive: true, force: true });
process.stdout.write(JSON.stringify(told));
process.exit(0);
