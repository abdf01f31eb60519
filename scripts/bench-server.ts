// How long the server takes for a build sheet and for the list of machines with 1,000 machines and 200 builds in the
// database, how the list scrolls, and how much script the sheet loads at first.
import { spawn } from "node:child_process";
import { mkdirSync, readFileSync, rmSync } from "node:fs";
import { resolve } from "node:path";
import { gzipSync } from "node:zlib";
import type { Export } from "@/core/record";

const PORT = 4391;
const BASE = `http://127.0.0.1:${PORT}`;
const folder = resolve(".derrick/bench");
mkdirSync(folder, { recursive: true });

/** The demo data with copies of its first machine and of one sheet, up to a number of machines and 200 builds. */
function large(machines: number): Export {
  const demo = JSON.parse(readFileSync("demo/marrowby-water.json", "utf8")) as Export;
  const machine = demo.machines[0];
  const sheet = demo.builds.find((b) => b.id === "b-wrk-hv2");
  if (!machine || !sheet) throw new Error("the demo data lacks what this bench copies");
  for (let i = demo.machines.length; i < machines; i += 1) {
    const facts = {
      ...machine.document.facts,
      chassis: { ...machine.document.facts.chassis, serial: `BENCH${i}` },
      ports: machine.document.facts.ports.map((p, n) => ({
        ...p,
        mac: `02:77:${(i >> 8).toString(16).padStart(2, "0")}:${(i & 255).toString(16).padStart(2, "0")}:00:0${n}`,
      })),
    };
    demo.machines.push({
      ...machine,
      id: `m-bench-${i}`,
      name: `bench-${i}`,
      // Some twenty machines hang on one circuit.
      document: {
        ...machine.document,
        facts,
        typed: { ...machine.document.typed, circuit: `row ${i % 50}` },
      },
    } as Export["machines"][number]);
  }
  for (let i = demo.builds.length; i < 200; i += 1) {
    const own = {
      ...sheet.sheet,
      machine: { id: `m-bench-${10 + i}` },
      answers: { ...sheet.sheet.answers, hostName: `bench-${i}` },
      network: { ...sheet.sheet.network, address: `10.61.12.${i}` },
    };
    demo.builds.push({ ...sheet, id: `b-bench-${i}`, number: `B-${1000 + i}`, sheet: own, history: [] });
  }
  return demo;
}

/** Starts a server on a database of that size, and measures. */
async function on(machines: number, measure: () => Promise<void>): Promise<void> {
  const file = `${folder}/bench-${machines}.db`;
  for (const end of ["", "-wal", "-shm"]) rmSync(file + end, { force: true });
  const server = spawn(
    process.execPath,
    ["node_modules/next/dist/bin/next", "start", "-H", "127.0.0.1", "-p", String(PORT)],
    {
      stdio: "ignore",
      env: { ...process.env, DERRICK_DB_URL: `file:${file}`, NEXT_TELEMETRY_DISABLED: "1" },
    },
  );
  try {
    for (let i = 0; i < 240 && !(await fetch(`${BASE}/api/health`).catch(() => null))?.ok; i += 1)
      await new Promise((r) => setTimeout(r, 250));
    const loaded = await fetch(`${BASE}/api/v1/export`, {
      method: "POST",
      headers: { "Content-Type": "application/json" },
      body: JSON.stringify(large(machines)),
    });
    if (!loaded.ok) throw new Error(await loaded.text());
    await measure();
  } finally {
    server.kill();
    await new Promise((r) => server.once("exit", r));
  }
}

async function get(path: string, machines: number, aim: string): Promise<void> {
  const runs: number[] = [];
  for (let i = 0; i < 40; i += 1) {
    const start = performance.now();
    await (await fetch(BASE + path)).text();
    if (i >= 10) runs.push(performance.now() - start);
  }
  runs.sort((a, b) => a - b);
  console.log(
    `${`GET ${path}, ${machines} machines and 200 builds`.padEnd(62)} median ${`${runs[15]?.toFixed(1)} ms`.padStart(10)}   p95 ${`${runs[28]?.toFixed(1)} ms`.padStart(10)}   aim ${aim}`,
  );
}

await on(500, async () => {
  await get("/builds/b-wrk-hv2", 500, "100 ms");
  await get("/", 500, "–");
  const html = await (await fetch(`${BASE}/builds/b-wrk-hv2`)).text();
  const scripts = [...new Set([...html.matchAll(/<script[^>]+src="([^"]+)"/g)].map((m) => m[1] ?? ""))];
  let bytes = 0;
  for (const src of scripts)
    bytes += gzipSync(Buffer.from(await (await fetch(BASE + src)).arrayBuffer())).length;
  console.log(
    `${`first-load script of the build sheet, ${scripts.length} files, compressed`.padEnd(62)} ${`${Math.round(bytes / 1000)} kB`.padStart(17)}   aim 250 kB`,
  );
});
await on(1000, async () => {
  await get("/machines", 1000, "150 ms");
  await scrolling();
});

/** Scrolls the list from top to foot in a browser and tells how long its frames took. */
async function scrolling(): Promise<void> {
  const { chromium } = await import("@playwright/test");
  const browser = await chromium.launch({
    executablePath: "/usr/bin/chromium",
    chromiumSandbox: false,
    args: ["--disable-gpu", "--disable-quic", "--no-first-run", "--disable-background-networking"],
  });
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.goto(`${BASE}/machines`);
  await page.getByText("1000 machines").waitFor();
  const frames = await page.evaluate(async () => {
    const taken: number[] = [];
    const end = document.documentElement.scrollHeight;
    let last = performance.now();
    for (let y = 0; y < end; y += 240) {
      scrollTo(0, y);
      await new Promise(requestAnimationFrame);
      const now = performance.now();
      taken.push(now - last);
      last = now;
    }
    return taken.sort((a, b) => a - b);
  });
  const rows = await page.locator('[role="row"]').count();
  console.log(
    `${`scroll the list of 1000 machines, ${frames.length} frames, ${rows} rows drawn`.padEnd(62)} median ${`${frames[Math.floor(frames.length / 2)]?.toFixed(1)} ms`.padStart(10)}   p95 ${`${frames[Math.floor(frames.length * 0.95)]?.toFixed(1)} ms`.padStart(10)}   aim 33 ms`,
  );
  await browser.close();
}
