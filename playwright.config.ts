import { resolve } from "node:path";
import { defineConfig } from "@playwright/test";
import { PORTS } from "./tests/e2e/servers";

const folder = resolve(".derrick/e2e");
const server = (name: string, port: number) => ({
  command: `rm -rf ${folder}/${name}-${port} && mkdir -p ${folder}/${name}-${port} && NODE_ENV=production node scripts/server.mjs --port ${port}`,
  url: `http://127.0.0.1:${port}/api/health`,
  reuseExistingServer: false,
  timeout: 240_000,
  env: {
    DERRICK_DB_URL: `file:${folder}/${name}-${port}/test.db`,
    DERRICK_ORIGIN: `http://127.0.0.1:${port}`,
    DERRICK_IMAGE_DIR: resolve(".derrick/corpus"),
    NEXT_TELEMETRY_DISABLED: "1",
  },
});

/** Two servers for each worker: an empty one for the whole path, and one with the demo data for all screens. */
export default defineConfig({
  testDir: "tests/e2e",
  workers: PORTS.length,
  timeout: 240_000,
  expect: { timeout: 30_000 },
  reporter: [["list"], ["json", { outputFile: ".derrick/e2e.json" }]],
  // What failed keeps its trace and its picture; a second run of it (scripts/test.mjs) does not write over them.
  outputDir: `.derrick/test-results${process.env.DERRICK_AGAIN ? "-again" : ""}`,
  use: {
    trace: "retain-on-failure",
    screenshot: "only-on-failure",
    browserName: "chromium",
    viewport: { width: 1280, height: 800 },
    reducedMotion: "reduce",
    locale: "en-GB",
    launchOptions: {
      executablePath: "/usr/bin/chromium-headless-shell",
      chromiumSandbox: false,
      args: [
        "--disable-gpu",
        "--disable-quic",
        "--no-first-run",
        "--disable-background-networking",
        "--disable-component-update",
        "--disable-sync",
        "--disable-default-apps",
        "--no-pings",
        "--host-resolver-rules=MAP * ~NOTFOUND, EXCLUDE 127.0.0.1, EXCLUDE localhost",
      ],
    },
  },
  webServer: PORTS.flatMap(({ empty, demo }) => [server("empty", empty), server("demo", demo)]),
});
