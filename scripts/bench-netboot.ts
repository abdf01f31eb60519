// How fast the boot service gives out an image, beside nginx from Debian over the same file in the same run; how long machines
// wait for an answer when 2,000 of them ask once a second; and how long the board takes when as many are armed.
import { fork, spawn, spawnSync } from "node:child_process";
import {
  closeSync,
  mkdirSync,
  mkdtempSync,
  openSync,
  readFileSync,
  rmSync,
  writeFileSync,
  writeSync,
} from "node:fs";
import { Agent, request } from "node:http";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { setTimeout as wait } from "node:timers/promises";
import { bootRows } from "@/db";
import { addShippedProfiles } from "@/server/profiles";
import { closeDatabase } from "@/server/database";
import { importAll } from "@/server/exports";
import { armMachine } from "@/server/netboot/arm";
import { bootBoard } from "@/server/netboot/board";
import { hashOf } from "@/server/netboot/decide";
import { endBoot, startBoot } from "@/server/netboot/listener";
import { imageFolder } from "../tests/support/boot-image";
import { desk } from "../tests/support/desk";
import { TELEMETRY } from "../tests/support/fleet";

const [PORT, OTHER_PORT, MACHINES, SECONDS, GIB] = [4393, 4394, 2000, 10, 2 ** 30];
const say = (name: string, value: string, aim: string): void =>
  console.log(`${name.padEnd(62)} ${value.padStart(34)}   target ${aim}`);
const share = (values: number[], at: number): number =>
  values.toSorted((a, b) => a - b)[Math.floor((values.length - 1) * at)] ?? 0;

/** The token of one of many armed machines. */
const tokenOf = (n: number): string => `bench-${String(n).padStart(26, "0")}`;

/** Machines of their own addresses, each of which asks once a second; their waits in milliseconds. The path may name {mac}, {token}. */
async function polling(path: string, machines: number): Promise<number[]> {
  const waits: number[] = [];
  const one = async (n: number): Promise<void> => {
    const agent = new Agent({ keepAlive: true, maxSockets: 1 });
    const localAddress = `127.8.${Math.floor(n / 250)}.${(n % 250) + 1}`;
    const own = path
      .replace(
        "{mac}",
        `02-98-00-00-${(n >> 8).toString(16).padStart(2, "0")}-${(n & 255).toString(16).padStart(2, "0")}`,
      )
      .replace("{token}", tokenOf(n));
    await wait((n / machines) * 1000);
    for (let i = 0; i < SECONDS; i += 1) {
      const start = performance.now();
      await new Promise<void>((resolve, reject) => {
        const options = { host: "127.0.0.1", port: PORT, path: own, agent, localAddress };
        request(options, (r) => r.resume().on("end", resolve))
          .on("error", reject)
          .end();
      });
      const took = performance.now() - start;
      waits.push(took);
      await wait(Math.max(0, 1000 - took));
    }
    agent.destroy();
  };
  await Promise.all(Array.from({ length: machines }, (_, n) => one(n)));
  return waits;
}

/** Bytes a second of so many programs that read the first GiB of a file at once. */
async function readBy(clients: number, url: string): Promise<number> {
  const start = performance.now();
  await Promise.all(
    Array.from(
      { length: clients },
      () =>
        new Promise<void>((resolve, reject) => {
          const curl = spawn("curl", ["-fsS", "-r", `0-${GIB - 1}`, "-o", "/dev/null", url]);
          curl.on("close", (code) => (code === 0 ? resolve() : reject(new Error(`curl ended with ${code}`))));
        }),
    ),
  );
  return (clients * GIB) / ((performance.now() - start) / 1000);
}

/** So many armings beside the one that is there, each with a token of its own. */
async function armMany(at: Awaited<ReturnType<typeof desk>>): Promise<void> {
  const [id = ""] = await bootRows.newestIds(at.db, 1, "9");
  const row = (await bootRows.one(at.db, id))!;
  await at.write(async (tx) => {
    for (let n = 0; n < MACHINES; n += 1) {
      await bootRows.insert(tx, { ...row, id: `a-bench-${n}` }, at.stamp());
      await bootRows.setToken(tx, `a-bench-${n}`, hashOf(tokenOf(n)));
    }
  });
}

async function bench(): Promise<void> {
  const folder = mkdtempSync(join(tmpdir(), "derrick-bench-"));
  const images = imageFolder();
  const name = "lowland-server-7.4-x86_64.iso";
  const fd = openSync(join(images, name), "r+");
  const block = Buffer.from(Array.from({ length: 2 ** 20 }, (_, i) => (i * 2654435761) >>> 24));
  for (let at = 8; at < 1024; at += 1) writeSync(fd, block, 0, block.length, at * 2 ** 20);
  closeSync(fd);
  process.env["DERRICK_DB_URL"] = `file:${folder}/bench.db`;
  process.env["DERRICK_BOOT_URL"] = `http://127.0.0.1:${PORT}`;
  process.env["DERRICK_IMAGE_DIR"] = images;
  await addShippedProfiles(await desk("Derrick"));
  await importAll(await desk(), readFileSync("demo/marrowby-water.json", "utf8"), { rebase: false });
  const armed = await armMachine(await desk(), TELEMETRY.build, {
    typed: TELEMETRY.serial,
    minutes: 60,
    asksCode: false,
  });
  if (!armed.ok) throw new Error(armed.problems.map((p) => p.message).join(" "));
  await startBoot();
  const base = process.env["DERRICK_BOOT_URL"];
  const asked = `${base}/script?mac=${TELEMETRY.mac}&serial=${TELEMETRY.serial}`;
  const script = await (await fetch(asked)).text();
  const image = `${/http\S+\/t\/[\w-]{32}\//.exec(script)![0]}image`;

  if (spawnSync("sh", ["-c", "command -v nginx"]).status !== 0)
    spawnSync("apt-get", ["install", "-y", "-q", "--no-install-recommends", "nginx-light"], {
      stdio: "inherit",
    });
  mkdirSync(join(folder, "nginx"));
  writeFileSync(
    join(folder, "nginx.conf"),
    `pid ${folder}/pid; error_log ${folder}/log; worker_processes 1; user root; events {}
     http { access_log off; sendfile on; server { listen 127.0.0.1:${OTHER_PORT}; root ${images}; } }`,
  );
  const nginx = spawn("nginx", ["-c", join(folder, "nginx.conf"), "-g", "daemon off;"], { stdio: "inherit" });
  await wait(1000);
  try {
    const other = `http://127.0.0.1:${OTHER_PORT}/${name}`;
    await readBy(1, other);
    for (const [clients, rounds] of [
      [1, 9],
      [20, 1],
    ] as const) {
      const [own, theirs]: [number[], number[]] = [[], []];
      for (let i = 0; i < rounds; i += 1) {
        own.push((await readBy(clients, image)) / 1e6);
        theirs.push((await readBy(clients, other)) / 1e6);
      }
      const shares = own.map((value, i) => value / theirs[i]!);
      say(
        `1 GiB of an image, ${clients} parallel: Derrick, nginx, share (median of ${rounds})`,
        `${share(own, 0.5).toFixed(0)} and ${share(theirs, 0.5).toFixed(0)} MB/s, ${share(shares, 0.5).toFixed(2)}`,
        "0.6",
      );
    }
  } finally {
    nginx.kill();
  }
  await armMany(await desk());
  for (const [words, path] of [
    ["request the boot script", "/boot.ipxe"],
    ["request instructions, not armed", "/script?mac={mac}&serial=X"],
    ["armed, and report their progress", "/t/{token}/report/started"],
  ] as const) {
    const waits = await new Promise<number[]>((resolve, reject) => {
      const child = fork(process.argv[1]!, ["clients", path, String(MACHINES)], {
        execArgv: process.execArgv,
      });
      child.on("message", (told) => resolve(told as number[]));
      child.on("error", reject);
      child.on("exit", (code) => reject(new Error(`The machines ended with ${code} and reported nothing.`)));
    });
    say(
      `${MACHINES} machines, each once a second, ${words}`,
      `median ${share(waits, 0.5).toFixed(1)} ms, p95 ${share(waits, 0.95).toFixed(1)} ms`,
      "60 ms",
    );
  }
  await endBoot();
  const at = await desk();
  const times: number[] = [];
  for (let i = 0; i < 20; i += 1) {
    const start = performance.now();
    await bootBoard(at);
    times.push(performance.now() - start);
  }
  say(
    `page of network installations with ${MACHINES} armings`,
    `median ${share(times, 0.5).toFixed(1)} ms, p95 ${share(times, 0.95).toFixed(1)} ms`,
    "60 ms",
  );
  await closeDatabase();
  for (const gone of [folder, images]) rmSync(gone, { recursive: true, force: true });
}

if (process.argv[2] === "clients") {
  // Ended before all of it has gone through the pipe, the parent would wait for ever.
  process.send?.(await polling(process.argv[3] ?? "/", Number(process.argv[4])), () => process.exit(0));
} else await bench();
