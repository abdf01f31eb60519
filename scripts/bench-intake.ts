// How long reading takes what people drop, up to eight megabytes of hostile text, and how fast the server answers about its
// health meanwhile.
import { OwnServer } from "../tests/support/own-server";
import { line } from "./bench-line";

const server = new OwnServer("bench-intake", 4394);
const ALMOST_EIGHT = 7_900_000;
const filled = (begin: string, piece: string, end = ""): string =>
  begin + piece.repeat(Math.floor((ALMOST_EIGHT - begin.length - end.length) / piece.length)) + end;

const drives = JSON.stringify({
  blockdevices: Array.from({ length: 5000 }, (_, i) => ({
    ...{ name: `sd${i}`, type: "disk", size: 4e12, serial: `SER-${i}`, fstype: null },
    ...{ model: `ALDER A-${i}`, wwn: `0x5000c5${String(i).padStart(10, "0")}`, rota: false },
  })),
});
const pci = Array.from({ length: 10_000 }, (_, i) => {
  const [bus, device] = [i >> 8, (i >> 3) % 32].map((n) => n.toString(16).padStart(2, "0"));
  return `${bus}:${device}.${i % 8} "Ethernet controller [0200]" "Silica [1af0]" "X [0001]" -r01\n`;
}).join("");

const KINDS: readonly (readonly [name: string, texts: readonly string[]])[] = [
  ["5,000 drives and 10,000 PCI functions", [drives, pci]],
  ["8 MB: brackets", [filled('{"blockdevices":', "[")]],
  ["8 MB: one line", [filled("Personalities : [raid1]\nmd0 : active ", "a", "\nunused devices: <none>\n")]],
  [
    "8 MB: lines of thirty thousand",
    [filled("Personalities : [raid1]\n", `md0 : active ${"a".repeat(30_000)}\n`)],
  ],
  ["8 MB: empty lines", [filled("BootOrder: 0001\n", "\n")]],
  ["8 MB: boot entries", [filled("BootOrder: 0001\n", "Boot0001* x\tHD(1)\n")]],
  [
    "8 MB: memory modules",
    [filled("# dmidecode 3.4\n", "Handle 0x0001, DMI type 17, 4 bytes\n\tSize: 1 GB\n")],
  ],
  ["8 MB: signatures", [filled("", '/dev/sda1: TYPE="ext4" AAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAA\n')]],
];

async function read(texts: readonly string[]): Promise<void> {
  const named = texts.map((text, i) => ({ name: `t${i}.txt`, text }));
  const response = await fetch(`${server.base}/api/v1/imports/preview`, {
    method: "POST",
    headers: { "Content-Type": "application/json" },
    body: JSON.stringify({ machineId: null, texts: named }),
  });
  await response.text();
}

/** The first reading of a server also starts the thread, which takes a second. */
const RUNS = 5;
/** Between two questions about health, as many pages ask them. */
const PAUSE_MILLISECONDS = 10;

await server.start();
try {
  await read(["Bus 001 Device 002: ID 0951:1666 Data stick\n"]);
  for (const [name, texts] of KINDS) {
    const health: number[] = [];
    const took: number[] = [];
    for (let run = 0; run < RUNS; run += 1) {
      let over = false;
      const start = performance.now();
      const done = read(texts).finally(() => (over = true));
      while (!over) {
        const asked = performance.now();
        await (await fetch(`${server.base}/api/health`)).text();
        health.push(performance.now() - asked);
        await new Promise((resolve) => setTimeout(resolve, PAUSE_MILLISECONDS));
      }
      await done;
      took.push(performance.now() - start);
    }
    const inOrder = (times: number[]) => times.toSorted((a, b) => a - b);
    line(name, "1 s", inOrder(took));
    line("  health meanwhile", "100 ms", inOrder(health));
  }
} finally {
  server.end();
}
