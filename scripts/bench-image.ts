// How long the inspector takes over a large image, and how fast checksums are computed: in the browser and on the
// server, each beside `sha256sum` over the same file in the same run.
import { spawnSync } from "node:child_process";
import { createHash } from "node:crypto";
import {
  closeSync,
  copyFileSync,
  createReadStream,
  mkdirSync,
  openSync,
  rmSync,
  truncateSync,
  writeSync,
} from "node:fs";
import { resolve } from "node:path";
import { inspectFile } from "../tests/support/corpus";
import { OwnServer } from "../tests/support/own-server";
import { listening } from "../tests/e2e/servers";

const folder = resolve(".derrick/bench");
mkdirSync(folder, { recursive: true });
const say = (name: string, value: string, aim: string): void =>
  console.log(`${name.padEnd(62)} ${value.padStart(34)}   target ${aim}`);
const middle = (values: number[]): number =>
  values.toSorted((a, b) => a - b)[Math.floor(values.length / 2)] ?? 0;

/** The inspector on an image of 10 GB, sparse behind a real one. */
function inspector(source: string): void {
  const large = `${folder}/large.iso`;
  copyFileSync(`.derrick/corpus/${source}`, large);
  truncateSync(large, 10e9);
  const runs = Array.from({ length: 5 }, () => {
    const start = performance.now();
    const { bytesRead } = inspectFile(large);
    return { ms: performance.now() - start, bytesRead };
  });
  rmSync(large);
  say(
    `inspect a 10 GB sparse image (${source})`,
    `${middle(runs.map((r) => r.ms)).toFixed(1)} ms, ${(runs[0]!.bytesRead / 2 ** 20).toFixed(2)} MiB read`,
    "300 ms, 4 MiB",
  );
}
for (const source of ["p04-both-hybrid-gpt.iso", "p17-data-udf-bridge.iso", "p07-gpt-esp.img"])
  inspector(source);

/** A file of 1 GiB that no compression of the disk makes smaller. */
const file = `${folder}/random.iso`;
const BLOCK = 2 ** 20;
const fd = openSync(file, "w");
let seed = createHash("sha256").update("bench").digest();
for (let i = 0; i < 1024; i += 1) {
  const block = Buffer.alloc(BLOCK);
  seed = createHash("sha256").update(seed).digest();
  for (let at = 0; at < BLOCK; at += seed.length) seed.copy(block, at);
  writeSync(fd, block);
}
closeSync(fd);

const GIB = 2 ** 30;
const timed = async (work: () => Promise<void> | void): Promise<number> => {
  const start = performance.now();
  await work();
  return (performance.now() - start) / 1000;
};
const rate = (seconds: number): string => `${Math.round(GIB / seconds / 1e6)} MB/s`;

/** node:crypto over a stream, read as src/server/image-folder.ts reads. */
async function onServer(): Promise<void> {
  const hash = createHash("sha256");
  for await (const chunk of createReadStream(file, { highWaterMark: 4 * 2 ** 20 }))
    hash.update(chunk as Buffer);
  hash.digest("hex");
}
const reference = () => timed(() => void spawnSync("sha256sum", [file]));

await reference();
const server: number[] = [];
const beside: number[] = [];
for (let i = 0; i < 3; i += 1) {
  beside.push(await reference());
  server.push(await timed(onServer));
}
say(
  "sha256 of 1 GiB on the server, compared with sha256sum",
  `${rate(middle(server))} to ${rate(middle(beside))}, ratio ${(middle(beside) / middle(server)).toFixed(2)}`,
  "0.9",
);

/** The application itself in a browser: the file is dropped on an image's sheet. */
async function inBrowser(): Promise<void> {
  const { chromium } = await import("@playwright/test");
  const server = new OwnServer("bench-image", 4393);
  await server.start();
  const { base } = server;
  try {
    const browser = await chromium.launch({
      executablePath: "/usr/bin/chromium-headless-shell",
      chromiumSandbox: false,
      args: ["--disable-gpu", "--disable-quic", "--no-first-run", "--disable-background-networking"],
    });
    const page = await browser.newPage();
    const both: { browser: number; beside: number }[] = [];
    for (let i = 0; i < 3; i += 1) {
      const own = await reference();
      await page.goto(`${base}/images`);
      await page.getByText("Drop the image file to inspect it").waitFor();
      await listening(page);
      await page.setInputFiles('input[aria-label="Image file"]', file);
      await page.getByText(/sha256 of random\.iso/).waitFor();
      const start = performance.now();
      await page.getByText("Computed from random.iso.").waitFor({ timeout: 300_000 });
      both.push({ browser: (performance.now() - start) / 1000, beside: own });
    }
    await browser.close();
    const [b, s] = [middle(both.map((x) => x.browser)), middle(both.map((x) => x.beside))];
    say(
      "sha256 of 1 GiB in the browser, compared with sha256sum",
      `${rate(b)} to ${rate(s)}, ratio ${(s / b).toFixed(2)}`,
      "0.5",
    );
  } finally {
    await server.end();
  }
}
await inBrowser();
rmSync(file);
