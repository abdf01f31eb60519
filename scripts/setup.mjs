// Shared by the commands: installs what is missing on a new machine and runs programs.
import { spawn, spawnSync } from "node:child_process";
import { existsSync, readFileSync, rmSync, statSync, writeFileSync } from "node:fs";
import { createConnection } from "node:net";
import { resolve } from "node:path";
import { fileURLToPath } from "node:url";

export const root = fileURLToPath(new URL("..", import.meta.url));
process.chdir(root);

export const CHROMIUM = "/usr/bin/chromium-headless-shell";
const env = { ...process.env, NEXT_TELEMETRY_DISABLED: "1" };

/** Runs a program with its output shown; ends this one when it fails. */
export function run(command, args, more = {}) {
  const done = spawnSync(command, args, { stdio: "inherit", env: { ...env, ...more } });
  if (done.status !== 0) {
    console.error(`\n${command} ${args.join(" ")} failed (exit ${done.status ?? done.signal}).`);
    process.exit(done.status || 1);
  }
}

/** npm ci, when node_modules is absent or older than the lock file. */
export function installPackages() {
  const stamp = "node_modules/.package-lock.json";
  if (existsSync(stamp) && statSync(stamp).mtimeMs >= statSync("package-lock.json").mtimeMs) return;
  console.log("Installing npm packages …");
  run("npm", ["ci", "--no-audit", "--no-fund"]);
}

/** Debian packages that are not installed yet, with why they are wanted. */
export function installDebian(packages, why) {
  const missing = packages.filter((p) => spawnSync("dpkg", ["-s", p], { stdio: "ignore" }).status !== 0);
  if (missing.length === 0) return;
  console.log(`Installing ${why}: ${missing.join(", ")} …`);
  run("apt-get", ["update", "-q"]);
  run("apt-get", ["install", "-y", "-q", "--no-install-recommends", ...missing], {
    DEBIAN_FRONTEND: "noninteractive",
  });
}

/** Debian's Chromium for the browser tests. */
export function installChromium() {
  if (!existsSync(CHROMIUM)) installDebian(["chromium-headless-shell"], "the browser of the tests");
}

/** Programs that the tests judge written files and scripts with; each by the Debian package that brings it. */
const TOOLS = {
  shellcheck: "shellcheck",
  wipefs: "util-linux",
  "mkfs.ext4": "e2fsprogs",
  losetup: "mount",
  netplan: "netplan.io",
  dnsmasq: "dnsmasq-base",
  "kea-dhcp4": "kea-dhcp4-server",
  "kea-dhcp6": "kea-dhcp6-server",
  dhclient: "isc-dhcp-client",
  "named-checkzone": "bind9-utils",
  ifquery: "ifupdown",
  nmcli: "network-manager",
  dhcpd: "isc-dhcp-server",
  ssh: "openssh-client",
  "cloud-init": "cloud-init",
  xmllint: "libxml2-utils",
  "grub-script-check": "grub-common",
};

/** Services of these packages are not to run: this file, which Debian's tools ask, says so while they are installed. */
const NO_SERVICES = "/usr/sbin/policy-rc.d";

export function installTools() {
  const there = (name) => ["/usr/bin", "/usr/sbin", "/bin", "/sbin"].some((d) => existsSync(`${d}/${name}`));
  const missing = Object.keys(TOOLS).filter((name) => !there(name));
  if (missing.length === 0) return;
  console.log(`Installing the tools that the tests need: ${missing.join(", ")}…`);
  run("apt-get", ["update", "-q"]);
  const mine = !existsSync(NO_SERVICES);
  if (mine) writeFileSync(NO_SERVICES, "#!/bin/sh\nexit 101\n", { mode: 0o755 });
  run("apt-get", ["install", "-y", "-q", "--no-install-recommends", ...missing.map((name) => TOOLS[name])], {
    DEBIAN_FRONTEND: "noninteractive",
  });
  if (mine) rmSync(NO_SERVICES);
}

const newest = (files) => Math.max(...files.map((f) => (existsSync(f) ? statSync(f).mtimeMs : 0)));

/** next build, when there is none or a source file is newer than it. */
export function build({ always = false } = {}) {
  const listed = spawnSync(
    "git",
    [
      "ls-files",
      "-co",
      "--exclude-standard",
      "src",
      "next.config.ts",
      "package-lock.json",
      "postcss.config.mjs",
    ],
    { encoding: "utf8" },
  );
  const sources = listed.status === 0 ? listed.stdout.split("\n").filter(Boolean) : [];
  const built = ".next/BUILD_ID";
  if (!always && existsSync(built) && sources.length > 0 && statSync(built).mtimeMs > newest(sources)) return;
  console.log("Building…");
  run("npx", ["next", "build"]);
}

/** The port from PORT, or 4360; a wrong one ends the command with the reason. */
export function portFromEnvironment() {
  const { PORT } = process.env;
  if (PORT === undefined) return 4360;
  if (/^\d{1,5}$/.test(PORT) && Number(PORT) >= 1 && Number(PORT) <= 65_535) return Number(PORT);
  console.error(
    `PORT is ${PORT === "" ? "set but empty" : `"${PORT}"`}; set it to a number from 1 to 65535, or unset it to use 4360.`,
  );
  return process.exit(1);
}

/** Resolves when nothing listens on the port; rejects with a clear message otherwise. */
export function portIsFree(port) {
  return new Promise((resolve, reject) => {
    const socket = createConnection({ port, host: "127.0.0.1" });
    socket.once("connect", () => {
      socket.destroy();
      reject(
        new Error(
          `Port ${port} of 127.0.0.1 is in use. Set PORT to another number, or stop the other program.`,
        ),
      );
    });
    socket.once("error", () => resolve());
  });
}

/** Starts the built server on loopback; the child is returned, its output shown. */
export function startServer(port, more = {}, stdio = "inherit") {
  return spawn(process.execPath, ["scripts/server.mjs", "--port", String(port)], {
    stdio,
    env: {
      ...env,
      NODE_ENV: "production",
      DERRICK_ORIGIN: env.DERRICK_ORIGIN ?? `http://127.0.0.1:${port}`,
      ...more,
    },
  });
}

/**
 * The environment in which machines of the demo can be armed: a boot service ten ports further, and an image to start from in a
 * folder. Without xorrisofs, which makes the image, there is none.
 */
export function demoBoot(port, folder) {
  const made = spawnSync("npx", ["tsx", "scripts/demo-image.ts", `${folder}/images`], { stdio: "inherit" });
  return made.status === 0
    ? { DERRICK_BOOT_URL: `http://127.0.0.1:${port + 10}`, DERRICK_IMAGE_DIR: resolve(folder, "images") }
    : {};
}

/** Waits until the server answers, at most a minute. */
export async function untilReady(port, child) {
  for (let i = 0; i < 240; i += 1) {
    if (child.exitCode !== null)
      throw new Error("The server ended before it responded; see its output above.");
    const answer = await fetch(`http://127.0.0.1:${port}/api/health`).catch(() => null);
    if (answer?.ok) return;
    await new Promise((r) => setTimeout(r, 250));
  }
  throw new Error("The server did not respond within a minute.");
}

/** Ends a child with this process, and this process with the child. */
export function tieTo(child) {
  for (const signal of ["SIGINT", "SIGTERM"]) process.on(signal, () => child.kill(signal));
  child.on("exit", (code) => process.exit(code ?? 0));
}

/** Loads the demo data into the empty server of that port, its times moved to now. */
export async function loadDemo(port) {
  const loaded = await fetch(`http://127.0.0.1:${port}/api/v1/export?rebase=1`, {
    method: "POST",
    headers: { "Content-Type": "application/json" },
    body: readFileSync("demo/marrowby-water.json", "utf8"),
  });
  return loaded.json();
}
