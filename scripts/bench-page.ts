// How long pages take over HTTP beside 1,000 machines, how their list scrolls, and how much script the sheet loads at first.
import { gzipSync } from "node:zlib";
import { OwnServer } from "../tests/support/own-server";
import { large } from "./large";

const MACHINES = 1000;
const CHROMIUM = "/usr/bin/chromium";
const server = new OwnServer("bench-page", 4391);
const { base: BASE } = server;

const line = (name: string, figures: string, aim: string) =>
  console.log(`${name.padEnd(62)} ${figures}   aim ${aim}`);

function figures(runs: number[]): string {
  runs.sort((a, b) => a - b);
  const at = (share: number) => `${(runs[Math.floor(runs.length * share)] ?? 0).toFixed(1)} ms`.padStart(10);
  return `median ${at(0.5)}   p95 ${at(0.95)}`;
}

async function get(path: string, aim: string): Promise<void> {
  const runs: number[] = [];
  for (let i = 0; i < 40; i += 1) {
    const start = performance.now();
    await (await fetch(BASE + path)).text();
    if (i >= 10) runs.push(performance.now() - start);
  }
  line(`GET ${path}`, figures(runs), aim);
}

async function script(path: string): Promise<void> {
  const html = await (await fetch(BASE + path)).text();
  const sources = new Set([...html.matchAll(/<script[^>]+src="([^"]+)"/g)].map((m) => m[1] ?? ""));
  let bytes = 0;
  for (const source of sources)
    bytes += gzipSync(Buffer.from(await (await fetch(BASE + source)).arrayBuffer())).length;
  const name = `first-load script of the build sheet, ${sources.size} files, compressed`;
  line(name, `${Math.round(bytes / 1000)} kB`.padStart(17), "250 kB");
}

/** Scrolls the list from top to foot in a browser and tells how long its frames took. */
async function scrolling(): Promise<void> {
  const { chromium } = await import("@playwright/test");
  const browser = await chromium.launch({
    executablePath: CHROMIUM,
    chromiumSandbox: false,
    args: ["--disable-gpu", "--disable-quic", "--no-first-run", "--disable-background-networking"],
  });
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.goto(`${BASE}/machines`);
  await page.getByText(`${MACHINES} machines`).waitFor();
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
    return taken;
  });
  const rows = await page.locator('[role="row"]').count();
  line(`scroll the list, ${frames.length} frames, ${rows} rows drawn`, figures(frames), "33 ms");
  await browser.close();
}

try {
  await server.start();
  const loaded = await fetch(`${BASE}/api/v1/export`, {
    method: "POST",
    headers: { "Content-Type": "application/json" },
    body: JSON.stringify(large(MACHINES, 200)),
  });
  if (!loaded.ok) throw new Error(await loaded.text());
  console.log(`\nOver HTTP, beside ${MACHINES} machines and 200 builds`);
  await get("/builds/b-wrk-hv2", "100 ms");
  await get("/", "100 ms");
  await get("/machines", "150 ms");
  await script("/builds/b-wrk-hv2");
  await scrolling();
} finally {
  await server.end();
}
