// npm run shots: retakes docs/screenshots/ from the demo data, on a server of its own.
import { spawnSync } from "node:child_process";
import { mkdirSync, readFileSync, rmSync } from "node:fs";
import {
  build,
  CHROMIUM,
  demoBoot,
  installChromium,
  installPackages,
  loadDemo,
  startServer,
  untilReady,
} from "./setup.mjs";

installPackages();
installChromium();
build();
const { chromium } = await import("@playwright/test");
const port = 4372;
const folder = ".derrick/shots";
const out = process.argv[2] ?? "docs/screenshots";
const only = process.argv[3];
rmSync(folder, { recursive: true, force: true });
mkdirSync(folder, { recursive: true });
mkdirSync(out, { recursive: true });

const boot = demoBoot(port, folder);

/** The telemetry host is armed by a person, and is at its installation; another machine has asked that nobody knows. */
async function installing(page) {
  const { machines } = JSON.parse(readFileSync("demo/marrowby-water.json", "utf8"));
  const { serial } = machines.find((m) => m.name === "wrk-tm1").document.facts.chassis;
  await page.goto(`http://127.0.0.1:${port}/builds/b-wrk-tm1/arm`);
  await page.waitForSelector("html[data-feed=open]", { state: "attached" });
  await page.getByLabel("End of the serial number").pressSequentially(serial.slice(-6));
  await page.keyboard.press("Enter");
  await page.waitForURL(/builds\/netboot$/);
  const client = (...more) => [
    "tsx",
    "simulators/netboot-client/main.ts",
    "--base",
    boot.DERRICK_BOOT_URL,
    ...more,
  ];
  spawnSync("npx", client("--machine", "02:61:0a:00:31:01,OST8B0007"));
  spawnSync("npx", client("--demo", "wrk-tm1", "--fault", "stands still"));
}

const VIEWS = [
  // Before there is anything.
  {
    name: "first-day",
    path: "/",
    drop: "demo/tho-b-bundle.txt",
    table: "Initial values",
    empty: true,
  },
  { name: "today", path: "/" },
  { name: "build-sheet", path: "/builds/b-wrk-hv2", wait: '[data-field="storage.sets"] button' },
  { name: "answers", path: "/builds/b-wrk-hv1/answers" },
  { name: "build-sheet-boot", path: "/builds/b-tho-a", at: "#zone-C", night: true },
  { name: "run", path: "/runs/r-wrk-hv1", width: 640 },
  { name: "answer-card", path: "/builds/b-tho-a/card" },
  { name: "record", path: "/runs/r-tho-b/record" },
  { name: "machine", path: "/machines/m-wrk-st1?drive=CDB12T4466" },
  { name: "builds", path: "/builds", wait: "[data-row] [title]" },
  { name: "bench", path: "/machines/m-cl-ws1/bench?other=m-tho-b&price=420&pass=1", wait: "canvas" },
  { name: "storage-bench", path: "/bench?drives=12x8T+1x6T&spares=1", wait: "canvas" },
  { name: "machines", path: "/machines" },
  { name: "site", path: "/sites/s-works" },
  { name: "site-wiring", path: "/sites/s-works/wiring" },
  { name: "images", path: "/images" },
  { name: "network-boot", path: "/builds/netboot", before: installing, wait: "td a" },
  { name: "image", path: "/images/i-cairn-9" },
  { name: "profile", path: "/images/profiles/cairn-hypervisor/9" },
];

const server = startServer(port, { DERRICK_DB_URL: `file:${folder}/shots.db`, ...boot }, [
  "ignore",
  "ignore",
  "inherit",
]);
try {
  await untilReady(port, server);
  const browser = await chromium.launch({
    executablePath: CHROMIUM,
    chromiumSandbox: false,
    args: ["--disable-gpu", "--disable-quic", "--no-first-run", "--disable-background-networking"],
  });
  let isLoaded = false;
  for (const view of VIEWS.filter((v) => !only || only.split(",").includes(v.name))) {
    if (!view.empty && !isLoaded) isLoaded = Boolean(await loadDemo(port));
    const page = await browser.newPage({
      viewport: { width: view.width ?? 1280, height: 800 },
      reducedMotion: "reduce",
      timezoneId: "Europe/London",
      locale: "en-GB",
    });
    await page.context().addCookies([
      {
        name: "derrick_theme",
        value: view.night ? "night-shift" : "day-sheet",
        url: `http://127.0.0.1:${port}`,
      },
      { name: "derrick_hand", value: "M. Arkle", url: `http://127.0.0.1:${port}` },
    ]);
    await view.before?.(page);
    await page.goto(`http://127.0.0.1:${port}${view.path}`);
    await page.evaluate(() => document.fonts.ready);
    for (const key of view.open ?? []) await page.keyboard.press(key);
    if (view.drop) {
      await page.setInputFiles("input[type=file]", view.drop);
      await page.getByRole("table", { name: view.table }).waitFor();
    }
    if (view.wait) await page.locator(view.wait).first().waitFor();
    // Marks that come from the server later stand as an ellipsis until then.
    await page.waitForFunction(
      () => ![...document.querySelectorAll("[data-row] span.quiet")].some((e) => e.textContent === "…"),
    );
    if (view.scroll) await page.mouse.wheel(0, view.scroll);
    if (view.at) await page.locator(view.at).evaluate((e) => e.scrollIntoView({ block: "start" }));
    await page.waitForTimeout(300);
    await page.screenshot({ path: `${out}/${view.name}.png`, fullPage: view.full ?? false });
    await page.close();
    console.log(`${out}/${view.name}.png`);
  }
  await browser.close();
} finally {
  server.kill();
}
