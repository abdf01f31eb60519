import { execFile, execFileSync } from "node:child_process";
import { mkdtempSync, readFileSync, rmSync, statSync, truncateSync, writeFileSync } from "node:fs";
import { request } from "node:https";
import { connect, createServer, type AddressInfo } from "node:net";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { promisify } from "node:util";
import { generate } from "selfsigned";
import { afterAll, beforeAll, expect, it, vi } from "vitest";
import { importAll } from "@/server/exports";
import { besideDatabase } from "@/server/beside";
import { armMachine } from "@/server/netboot/arm";
import { bootBoard } from "@/server/netboot/board";
import { bootPair, bootTrust, type BootTrust } from "@/server/netboot/certificate";
import { endBoot, startBoot } from "@/server/netboot/listener";
import { addShippedProfiles } from "@/server/profiles";
import { makeReady } from "../support/armed";
import { ARMED } from "../support/boot-image";
import { ownDatabase } from "../support/database";
import { desk } from "../support/desk";
import { IMAGE, KINDS, realDemo } from "../support/real-plan";

// The boot service over HTTPS: who believes its key reads all, who believes another one gives nothing away, and an installer that
// believes no certificate is given its answers by the boot loader.

ownDatabase();
const folder = mkdtempSync(join(tmpdir(), "derrick-tls-"));
const freePort = (): Promise<number> =>
  new Promise((resolve) => {
    const server = createServer().listen(0, "127.0.0.1", () => {
      const { port } = server.address() as AddressInfo;
      server.close(() => resolve(port));
    });
  });
let [plain, tls, trust] = ["", "", null as unknown as BootTrust];
const OTHER_PIN = Buffer.alloc(32).toString("base64");

beforeAll(async () => {
  await addShippedProfiles(await desk("Derrick"));
  const text = realDemo("sas", ["sas", "sata"], "http://10.61.20.1:1/debian", "10.61.20.2");
  expect(await importAll(await desk(), text, { rebase: false })).toMatchObject({ ok: true });
  for (const name of ["kernel", "initrd.gz"]) writeFileSync(join(folder, name), `the ${name}\n`.repeat(999));
  const image = join(folder, IMAGE.name);
  const parts = ["kernel", "initrd.gz"].map((name) => `/install/${name}=${join(folder, name)}`);
  execFileSync("xorrisofs", ["-R", "-quiet", "-graft-points", "-o", image, ...parts], { stdio: "pipe" });
  truncateSync(image, IMAGE.bytes);
  [plain, tls] = [`http://127.0.0.1:${await freePort()}`, `https://127.0.0.1:${await freePort()}`];
  Object.assign(process.env, {
    ...{ DERRICK_IMAGE_DIR: folder, DERRICK_BOOT_URL: plain, DERRICK_BOOT_TLS_URL: tls },
  });
  await startBoot();
  trust = bootTrust()!;
  await makeReady(KINDS.sas.serial);
});
afterAll(async () => {
  await endBoot();
  for (const name of ["IMAGE_DIR", "BOOT_URL", "BOOT_TLS_URL"]) delete process.env[`DERRICK_${name}`];
  rmSync(folder, { recursive: true, force: true });
});

/** Reads over HTTPS as a loader does into which the certificate was built, and no other. */
const get = (path: string, ca = trust.certificate): Promise<Buffer> =>
  new Promise((resolve, reject) => {
    const asked = request(`${tls}${path}`, { ca }, (response) => {
      const parts: Buffer[] = [];
      response.on("data", (part: Buffer) => parts.push(part));
      response.on("end", () => resolve(Buffer.concat(parts)));
    });
    asked.on("error", reject).end();
  });

it("is believed by its certificate alone, which lies beside the database for its owner, and is made once", async () => {
  expect((await get("/boot.ipxe")).toString()).toMatch(/^#!ipxe\n/);
  const { cert } = await generate([{ name: "commonName", value: "127.0.0.1" }]);
  await expect(get("/boot.ipxe", cert)).rejects.toThrow(/self-signed/);
  expect(statSync(besideDatabase("boot-service.pem")).mode & 0o777).toBe(0o600);
  expect((await bootPair(tls)).certificate).toBe(trust.certificate);
  await expect(bootPair("https://10.61.10.5")).rejects.toThrow(
    /not for 10\.61\.10\.5.*every boot loader must then trust/,
  );
});

it("gives an installer its answers inside an initial file system, and all addresses in them are of HTTPS and of this key", async () => {
  const how = { typed: ARMED.serial, minutes: 60, asksCode: false };
  expect(await armMachine(await desk(), ARMED.build, how)).toMatchObject({ ok: true });
  const script = (await get(`/script?mac=${ARMED.mac}&serial=${ARMED.serial}`)).toString();
  expect(script).toContain(`kernel ${tls}/t/`);
  expect(script).not.toMatch(/http:\/\/|[ ]url=/);
  const places = [...script.matchAll(/initrd --name \S+ https:\/\/[^/]+(\S+)/g)].map(([, place]) => place!);
  expect(places).toHaveLength(2);
  await get(/kernel https:\/\/[^/]+(\S+)/.exec(script)![1]!);
  const [, packed] = await Promise.all(places.map((place) => get(place)));
  execFileSync("cpio", ["-idm", "--quiet"], { cwd: folder, input: packed! });
  const answers = readFileSync(join(folder, "preseed.cfg"), "utf8");
  expect(answers).toMatch(/^d-i /m);
  expect(answers).toContain(`p=${trust.pin}; u=${tls}/t/`);
  expect(answers).toContain(
    "curl -fsS -k --pinnedpubkey sha256//$p -o $f $u || wget -q --no-check-certificate",
  );
  expect(answers).not.toContain(plain);
  // What was sent is written down after the last byte of it has gone.
  await vi.waitFor(async () => {
    const [row] = (await bootBoard(await desk())).rows;
    expect(row!.state.status).toBe("installing");
  }, 10_000);
});

it.each([
  ["curl", "-fsS", (pin: string) => ["-k", "--pinnedpubkey", `sha256//${pin}`]],
  ["wget", "-qO-", (pin: string) => ["--no-check-certificate", `--pinnedpubkey=sha256//${pin}`]],
])("%s reads it by the key that it was told, and from nobody else", async (program, quiet, by) => {
  const read = async (pin: string): Promise<string> =>
    (await promisify(execFile)(program, [quiet, ...by(pin), `${tls}/boot.ipxe`])).stdout;
  expect(await read(trust.pin)).toMatch(/^#!ipxe\n/);
  await expect(read(OTHER_PIN)).rejects.toThrow(/ommand failed/);
});

it("who shakes no hands holds nothing up, and is let go", async () => {
  const socket = connect(Number(new URL(tls).port), "127.0.0.1");
  const gone = new Promise((resolve) => socket.on("close", resolve).on("error", resolve));
  expect((await get("/boot.ipxe")).toString()).toMatch(/^#!ipxe\n/);
  await gone;
}, 30_000);
