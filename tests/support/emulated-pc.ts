// One emulated PC, in a network of its own (start it by `unshare -n -m`): it starts over the network from Derrick's boot
// service with Derrick's own text for dnsmasq, installs itself, starts once more over the network, and is led to its disk.
// Tells as JSON what its console said, what the board holds, and what was asked.
import { execFileSync, spawn } from "node:child_process";
import {
  copyFileSync,
  mkdirSync,
  mkdtempSync,
  readFileSync,
  rmSync,
  truncateSync,
  writeFileSync,
} from "node:fs";
import { createServer } from "node:http";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { closeDatabase } from "@/server/database";
import { addShippedProfiles } from "@/server/profiles";
import { importAll } from "@/server/exports";
import { armMachine, disarm } from "@/server/netboot/arm";
import { bootBoard } from "@/server/netboot/board";
import { endBoot, startBoot } from "@/server/netboot/listener";
import { bootRows } from "@/db";
import { codeWords, dnsmasqBoot, grubFirst } from "@/core/netboot";
import { makeReady } from "./armed";
import { ARMED, imageFolder } from "./boot-image";
import { desk } from "./desk";
import { TELEMETRY } from "./fleet";

const FIRMWARE = ["bios", "uefi", "uefi over http", "uefi with grub"] as const;
const mode = FIRMWARE.find((f) => f === process.argv[2]);
if (!mode) throw new Error(`The firmware is one of ${FIRMWARE.join(", ")}.`);
const isGrub = mode === "uefi with grub";
// A person types the code of the arming at its console, with each of the two boot loaders.
const isAsked = isGrub || mode === "bios";
const [ADDRESS, LOADER_PORT, LIMIT_SECONDS] = ["10.61.10.1", 8080, 900];
// GRUB 2.06 reaches no other port than 80.
const BASE = `http://${ADDRESS}${isGrub ? "" : ":4370"}`;
const TINY = ".derrick/tiny";

const folder = mkdtempSync(join(tmpdir(), "derrick-pc-"));
const ip = (...args: string[]) => execFileSync("ip", args);
ip("link", "set", "lo", "up");
ip("tuntap", "add", "dev", "pc", "mode", "tap");
ip("addr", "add", `${ADDRESS}/24`, "dev", "pc");
ip("link", "set", "pc", "up");

process.env.DERRICK_DB_URL = `file:${folder}/pc.db`;
process.env.DERRICK_BOOT_URL = BASE;
// Of 1 Mbit/s nobody else gets anything.
if (mode === "bios") process.env.DERRICK_BOOT_LINK = "1";
const images = imageFolder({
  "netboot/kernel": readFileSync(`${TINY}/kernel`),
  "netboot/initial.img": readFileSync(`${TINY}/initial.img`),
  "images/disk.img": readFileSync(`${TINY}/disk.img`),
});
process.env.DERRICK_IMAGE_DIR = images;
await addShippedProfiles(await desk("Derrick"));
await importAll(await desk(), readFileSync("demo/marrowby-water.json", "utf8"), { rebase: false });
await makeReady();
const armed = await armMachine(await desk(), ARMED.build, {
  typed: ARMED.serial,
  minutes: 30,
  asksCode: isAsked,
});
if (!armed.ok) throw new Error(armed.problems.map((p) => p.message).join(" "));
await startBoot();
const boardNow = async () => bootBoard(await desk());
if (mode === "bios") void waitForAnother();

/** Another machine is fed first, with all that the link gives; it is called off once the PC was told to wait. */
async function waitForAnother(): Promise<void> {
  const other = await armMachine(await desk(), TELEMETRY.build, {
    typed: TELEMETRY.serial,
    minutes: 30,
    asksCode: false,
  });
  if (!other.ok) throw new Error(other.problems.map((p) => p.message).join(" "));
  await fetch(`${BASE}/script?mac=${TELEMETRY.mac}&serial=${TELEMETRY.serial}`);
  const isTold = async () =>
    (await boardNow()).rows.some(({ buildId, state }) => buildId === ARMED.build && state.waitsTurn);
  while (!(await isTold())) await new Promise((resolve) => setTimeout(resolve, 500));
  await disarm(await desk(), other.value.id);
}

// What the site has: its DHCP server, and the loaders by TFTP and HTTP.
const tftp = join(folder, "tftp");
mkdirSync(tftp);
for (const file of ["undionly.kpxe", "snponly.efi"]) copyFileSync(`${TINY}/${file}`, join(tftp, file));
if (isGrub) {
  copyFileSync(`${TINY}/grubnet.efi`, join(tftp, "grubnet.efi"));
  mkdirSync(join(tftp, "grub"));
  writeFileSync(join(tftp, "grub/grub.cfg"), grubFirst(BASE));
}
const web = createServer((request, response) => {
  const file = readFileSync(`${TINY}/snponly.efi`);
  response.writeHead(200, { "Content-Length": file.length, "Content-Type": "application/efi" });
  response.end(request.method === "HEAD" ? undefined : file);
});
await new Promise<void>((resolve) => web.listen(LOADER_PORT, ADDRESS, resolve));
const written = dnsmasqBoot({
  ...{ script: `${BASE}/boot.ipxe`, ...(isGrub && { signed: "grubnet.efi" }) },
  ...{ tftp: ADDRESS, http: `http://${ADDRESS}:${LOADER_PORT}`, folder: tftp },
});
writeFileSync(
  join(folder, "dnsmasq.conf"),
  `no-ping\nlog-dhcp\nbind-dynamic\ninterface=pc\ndhcp-range=10.61.10.100,10.61.10.150,255.255.255.0,1h\n${written}`,
);
const dhcp = spawn(
  "dnsmasq",
  [
    "-k",
    "--port=0",
    "-C",
    join(folder, "dnsmasq.conf"),
    `--dhcp-leasefile=${folder}/leases`,
    "--user=root",
    "--log-facility=-",
  ],
  { stdio: ["ignore", "ignore", "pipe"] },
);
let dhcpSaid = "";
dhcp.stderr.on("data", (part: Buffer) => (dhcpSaid += part.toString()));

const disk = join(folder, "disk");
writeFileSync(disk, "");
truncateSync(disk, 128 * 2 ** 20);
// The BIOS needs the iPXE in the card's own memory; UEFI starts the one that the DHCP server names.
const firmware: string[] = {
  bios: [],
  uefi: ["-fw_cfg", "name=opt/org.tianocore/IPv6PXESupport,string=n"],
  "uefi with grub": ["-fw_cfg", "name=opt/org.tianocore/IPv6PXESupport,string=n"],
  "uefi over http": [
    "-fw_cfg",
    "name=opt/org.tianocore/IPv6PXESupport,string=n",
    "-fw_cfg",
    "name=opt/org.tianocore/IPv4PXESupport,string=n",
  ],
}[mode];
if (mode !== "bios") {
  copyFileSync("/usr/share/OVMF/OVMF_VARS.fd", join(folder, "vars"));
  for (const [file, more] of [
    ["/usr/share/OVMF/OVMF_CODE.fd", ",readonly=on"],
    [join(folder, "vars"), ""],
  ])
    firmware.push("-drive", `if=pflash,format=raw,file=${file}${more}`);
}
const pc = spawn(
  "qemu-system-x86_64",
  [
    ...["-accel", "tcg", "-m", "512", "-display", "none", "-monitor", "none", "-machine", "q35,graphics=off"],
    ...["-serial", "stdio", "-smbios", `type=1,manufacturer=Pippin,product=3,serial=${ARMED.serial}`],
    ...["-netdev", "tap,id=n,ifname=pc,script=no,downscript=no"],
    ...[
      "-device",
      `virtio-net-pci,netdev=n,mac=${ARMED.mac},bootindex=1${mode === "bios" ? "" : ",romfile="}`,
    ],
    ...["-drive", `if=none,id=d,format=raw,file=${disk}`],
    ...["-device", `virtio-blk-pci,drive=d,serial=${ARMED.drive},bootindex=2`],
    ...firmware,
  ],
  { stdio: ["pipe", "pipe", "inherit"] },
);
const code = (await boardNow()).rows[0]?.arming.code ?? "";
let [said, heard, wrong] = ["", 0, true];
pc.stdout.setEncoding("latin1").on("data", (part: string) => {
  said += part;
  const news = said.slice(heard);
  const [asked] = /press a key to enter the code|Code: ?$/.exec(news) ?? [];
  if (!asked) return;
  heard = said.length;
  // The first one is mistyped; the others as a person reads them, in groups and with capitals.
  const words = wrong ? "bcdf" : codeWords(code).toUpperCase();
  if (!asked.startsWith("Code")) pc.stdin.write(" ");
  else {
    wrong = false;
    pc.stdin.write(`${words}\r`);
  }
});
const ended = new Promise<string>((resolve) => pc.on("close", () => resolve("switched itself off")));
const late = new Promise<string>((resolve) =>
  setTimeout(() => resolve("did not end"), LIMIT_SECONDS * 1000).unref(),
);
const end = await Promise.race([ended, late]);
pc.kill();
const board = await boardNow();
const row = board.rows.find(({ buildId }) => buildId === ARMED.build);
const log = row ? await bootRows.log((await desk()).db, row.id) : [];
const told = {
  end,
  state: row?.state,
  strangers: board.strangers.map((s) => s.last.event),
  log: log.map(({ event }) => event),
  console: said,
  dhcp: dhcpSaid,
};
dhcp.kill();
web.close();
await endBoot();
await closeDatabase();
for (const gone of [folder, images]) rmSync(gone, { recursive: true, force: true });
process.stdout.write(JSON.stringify(told));
process.exit(0);
