// How a sheet with 60 findings answers in a browser whose processor is slowed to a quarter, and how much script each page
// loads at first beside what the last commit noted in scripts/page-scripts.json.
import { execFileSync } from "node:child_process";
import { readFileSync, writeFileSync } from "node:fs";
import { gzipSync } from "node:zlib";
import { chromium, type Page } from "@playwright/test";
import { OwnServer } from "../tests/support/own-server";
import { crowded } from "./large";

const FINDINGS = 60;
const SLOWER = 4;
const SHEET = "/builds/b-wrk-hv2";
const NOTED = "scripts/page-scripts.json";
const PAGES = [
  "/",
  "/machines",
  "/machines/m-wrk-hv2",
  "/machines/drives",
  "/machines/compatibility",
  "/images",
  "/images/profiles/cairn-hypervisor/9",
  "/builds",
  SHEET,
  "/runs/r-wrk-hv1",
  "/sites/s-wrk",
  "/bench",
];
/** Between two keys of a person who knows where to go. */
const PAUSE = 250;
/** Of so many interactions one may be slower: the usual way to tell interaction to next paint. */
const OUTLIER_OF = 50;
const server = new OwnServer("bench-sheet", 4391);

const line = (name: string, figure: string, aim: string) =>
  console.log(`${name.padEnd(62)} ${figure.padStart(12)}   target ${aim}`);
const ms = (n: number | undefined): string => (n === undefined ? "not reported" : `${Math.round(n)} ms`);

/** Keeps what the browser tells of each interaction: from the key press to the next paint, in milliseconds. */
function watchInteractions() {
  const told: Record<number, { name: string; duration: number }> = {};
  Object.assign(window, { told });
  new PerformanceObserver((list) => {
    for (const e of list.getEntries() as (PerformanceEventTiming & { interactionId?: number })[]) {
      const id = e.interactionId ?? 0;
      if (id > 0 && e.duration > (told[id]?.duration ?? 0)) told[id] = { name: e.name, duration: e.duration };
    }
  }).observe({ type: "event", durationThreshold: 16, buffered: true } as PerformanceObserverInit);
}

const painted = (page: Page) =>
  page.evaluate(() => new Promise((r) => requestAnimationFrame(() => requestAnimationFrame(r))));

/** The answers to some keys, pressed one after another as a person does, in milliseconds. */
async function answers(page: Page, name: string, keys: readonly string[]): Promise<number[]> {
  await page.evaluate(() => {
    const { told } = window as unknown as { told: Record<number, unknown> };
    for (const id of Object.keys(told)) Reflect.deleteProperty(told, id);
  });
  for (const key of keys) {
    await page.keyboard.press(key);
    await painted(page);
    await page.waitForTimeout(PAUSE);
  }
  await page.waitForTimeout(300);
  const durations = await page.evaluate(() =>
    Object.values((window as unknown as { told: Record<number, { duration: number }> }).told).map(
      (t) => t.duration,
    ),
  );
  // What took under 16 ms is not told by the browser.
  const slowest = Math.max(0, ...durations);
  line(`  ${name}, slowest of ${keys.length}`, slowest === 0 ? "< 16 ms" : ms(slowest), "100 ms");
  return [...durations, ...Array<number>(Math.max(0, keys.length - durations.length)).fill(0)];
}

async function sheet(): Promise<void> {
  const browser = await chromium.launch({
    executablePath: "/usr/bin/chromium-headless-shell",
    chromiumSandbox: false,
    args: ["--disable-gpu", "--disable-quic", "--no-first-run", "--disable-background-networking"],
  });
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  const devtools = await page.context().newCDPSession(page);
  await devtools.send("Emulation.setCPUThrottlingRate", { rate: SLOWER });
  await page.addInitScript(watchInteractions);
  await fetch(server.base + SHEET);
  await page.goto(server.base + SHEET);
  await page.waitForLoadState("networkidle");
  const first = await page.evaluate(
    () => performance.getEntriesByName("first-contentful-paint")[0]?.startTime,
  );
  const shown = await page.getByRole("complementary", { name: "Findings panel" }).locator("article").count();
  console.log(
    `\nA sheet with ${FINDINGS} additional findings in ${shown} entries, processor slowed down ${SLOWER} times`,
  );
  line("first paint of its content", ms(first), "1500 ms");
  const many = (key: string, n: number) => Array<string>(n).fill(key);
  await page.locator("body").click({ position: { x: 5, y: 300 } });
  const all = [
    ...(await answers(page, "next finding (])", many("]", 25))),
    ...(await answers(page, "previous finding ([)", many("[", 10))),
    ...(await answers(page, "its suggested fix (R)", many("r", 6))),
    ...(await answers(page, "zones open and fold (A to K)", [..."abdefgk", ..."abdefgk"])),
  ];
  await page.keyboard.press("f");
  await page.getByLabel("Host name").first().focus();
  all.push(...(await answers(page, "typing in a field", [..."wrk-hv2-b", ...many("Backspace", 6)])));
  const inp = all.sort((a, b) => b - a)[Math.floor(all.length / OUTLIER_OF)];
  line(`interaction to next paint, of ${all.length}`, ms(inp), "100 ms");
  await browser.close();
}

/** The compressed bytes of what a page's first answer names as its script. */
async function scriptOf(path: string): Promise<number> {
  const html = await (await fetch(server.base + path)).text();
  const sources = new Set([...html.matchAll(/<script[^>]+src="([^"]+)"/g)].map((m) => m[1] ?? ""));
  let bytes = 0;
  for (const source of sources)
    bytes += gzipSync(Buffer.from(await (await fetch(server.base + source)).arrayBuffer())).length;
  return bytes;
}

function lastNoted(): Record<string, number> {
  try {
    return JSON.parse(
      execFileSync("git", ["show", `HEAD:${NOTED}`], { encoding: "utf8", stdio: "pipe" }),
    ) as Record<string, number>;
  } catch {
    return {};
  }
}

async function scripts(): Promise<void> {
  const last = lastNoted();
  const now: Record<string, number> = {};
  console.log("\nScripts of each page at first load, compressed, compared with the last commit");
  for (const path of PAGES) {
    const kilobytes = Math.round((await scriptOf(path)) / 100) / 10;
    now[path] = kilobytes;
    const before = last[path];
    const change =
      before === undefined
        ? "not recorded"
        : `${kilobytes >= before ? "+" : ""}${(kilobytes - before).toFixed(1)}`;
    console.log(`${path.padEnd(62)} ${`${kilobytes.toFixed(1)} kB`.padStart(12)}   ${change}`);
  }
  const text = `${JSON.stringify(now, null, 2)}\n`;
  if (readFileSync(NOTED, { encoding: "utf8", flag: "a+" }) !== text) writeFileSync(NOTED, text);
}

try {
  await server.start();
  const loaded = await fetch(`${server.base}/api/v1/export`, {
    method: "POST",
    headers: { "Content-Type": "application/json" },
    body: JSON.stringify(crowded(FINDINGS)),
  });
  if (!loaded.ok) throw new Error(await loaded.text());
  await sheet();
  await scripts();
} finally {
  await server.end();
}
