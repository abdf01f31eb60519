// How long pages take over HTTP beside 1,000 machines and as many sheets and images, and how their lists scroll.
import { chromium, type Page } from "@playwright/test";
import { OwnServer } from "../tests/support/own-server";
import { large } from "./large";

const ROWS = 1000;
const CHROMIUM = "/usr/bin/chromium-headless-shell";
const server = new OwnServer("bench-page", 4391);
const { base: BASE } = server;

const line = (name: string, figures: string, aim: string) =>
  console.log(`${name.padEnd(62)} ${figures}   target ${aim}`);

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

/** Scrolls a list from top to foot and tells how long its frames took, and how long one word takes to narrow it. */
async function scrolling(page: Page, path: string, label: string, word: string): Promise<void> {
  await page.goto(BASE + path);
  const table = page.getByRole("table", { name: label });
  await table.waitFor();
  await page.waitForLoadState("networkidle");
  const frames = await page.evaluate(async () => {
    const taken: number[] = [];
    let last = performance.now();
    for (let y = 0; y < document.documentElement.scrollHeight; y += 240) {
      scrollTo(0, y);
      await new Promise(requestAnimationFrame);
      const now = performance.now();
      taken.push(now - last);
      last = now;
    }
    return taken;
  });
  const rows = await table.getByRole("row").count();
  line(`scroll ${path}, ${frames.length} frames, ${rows} rows drawn`, figures(frames), "33 ms");
  const runs: number[] = [];
  for (const text of [...word].map((_, i) => word.slice(0, i + 1))) {
    await page.getByLabel("Filter").fill(text);
    runs.push(await page.evaluate(nextPaint));
  }
  line(`filter ${path} by "${word}", letter by letter`, figures(runs), "50 ms");
}

/** From now to the frame after the next, in milliseconds. */
const nextPaint = () =>
  new Promise<number>((told) => {
    const start = performance.now();
    requestAnimationFrame(() => requestAnimationFrame(() => told(performance.now() - start)));
  });

async function lists(): Promise<void> {
  const browser = await chromium.launch({
    executablePath: CHROMIUM,
    chromiumSandbox: false,
    args: ["--disable-gpu", "--disable-quic", "--no-first-run", "--disable-background-networking"],
  });
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await scrolling(page, "/machines", "Machines", "bench-44");
  await scrolling(page, "/machines/drives", "Drives", "bench-44");
  await scrolling(page, "/builds", "Build sheets", "bench-44");
  await scrolling(page, "/images", "Image library", "image 44");
  await browser.close();
}

try {
  await server.start();
  const loaded = await fetch(`${BASE}/api/v1/export`, {
    method: "POST",
    headers: { "Content-Type": "application/json" },
    body: JSON.stringify(large(ROWS + 20, ROWS, ROWS)),
  });
  if (!loaded.ok) throw new Error(await loaded.text());
  console.log(`\nOver HTTP, with ${ROWS} machines, sheets and images`);
  await get("/builds/b-wrk-hv2", "100 ms");
  await get("/", "100 ms");
  await get("/machines", "150 ms");
  await get("/builds", "150 ms");
  await get("/images", "150 ms");
  await lists();
} finally {
  await server.end();
}
