import { readdirSync, rmSync } from "node:fs";
import { expect, test } from "@playwright/test";
import { ARMED, ask, imageFolder } from "../support/boot-image";
import { TELEMETRY } from "../support/fleet";
import { loadDemoInto } from "../support/kill-storm";
import { OwnServer } from "../support/own-server";
import { silentStorm } from "../support/silent-storm";
import { listening, saved } from "./servers";

const BOOT = "http://127.0.0.1:4396";
const folder = imageFolder();
const server = new OwnServer("netboot", 4395, { DERRICK_BOOT_URL: BOOT, DERRICK_IMAGE_DIR: folder });

test.beforeAll(async () => {
  await server.start();
  await loadDemoInto(server.base);
});
test.afterAll(async () => {
  await server.end();
  rmSync(folder, { recursive: true, force: true });
});

const script = async (serial: string, code = ""): Promise<string> => {
  const told = { mac: ARMED.mac, serial, maker: "Pippin", model: "3", platform: "efi", code };
  // As a boot loader writes it, in which a blank is no +.
  const query = new URLSearchParams(told).toString().replaceAll("+", "%20");
  return (await ask(BOOT, `/script?${query}`)).body.toString();
};

test("a machine is armed by the end of its serial, installs itself once, and the board tells how far it is", async ({
  page,
}) => {
  const arming = `${server.base}/builds/${ARMED.build}/arm`;

  await test.step("before, everything that stands in the way is named, and the machine starts from its disk", async () => {
    expect(await script(ARMED.serial)).toContain("This machine is not armed");
    await page.goto(arming);
    for (const words of [/Network boot is off at Thornhope/, /Issue a revision first/, /is not confirmed/])
      await expect(page.getByText(words)).toBeVisible();
    await expect(page.getByLabel("End of the serial number")).toHaveCount(0);
    await page.goto(`${server.base}/builds/netboot`);
    await expect(
      page.getByRole("table", { name: "Boot requests from machines that are not armed" }),
    ).toContainText(ARMED.mac);
    await expect(page.getByRole("main")).not.toContainText(ARMED.serial);
  });

  await test.step("the site is switched on, the sheet is put right and issued", async () => {
    await page.goto(`${server.base}/sites/${ARMED.site}`);
    await page.getByRole("radiogroup", { name: "Network boot" }).getByText(/^on,/).click();
    await saved(page);
    await page.goto(`${server.base}/builds/${ARMED.build}`);
    const zone = (letter: string) => page.locator(`#zone-${letter}`);
    for (const letter of ["B", "D"]) {
      const head = zone(letter).getByRole("button").first();
      if ((await head.getAttribute("aria-expanded")) !== "true") await head.click();
    }
    await page.getByText("Compare boot sources, and for several machines").click();
    const ways = page.getByRole("table", { name: "Compare boot sources" });
    await ways.getByText("network boot", { exact: true }).click();
    await saved(page);
    await page.getByLabel(/^Confirm erasing Sallow 512/).pressSequentially(ARMED.drive);
    await page.getByRole("button", { name: "Confirm erase" }).click();
    await expect(page.getByText("ready", { exact: true })).toBeVisible();
    await saved(page);
    await page.getByRole("button", { name: "Issue revision" }).click();
    await expect(page.getByRole("button", { name: "Start run" })).toBeVisible();
  });

  await test.step("what is lost stands there, no character of the serial does, and a wrong end arms nothing", async () => {
    await page.goto(arming);
    const main = page.getByRole("main");
    await expect(main).toContainText("old-root");
    await expect(main).not.toContainText(ARMED.serial.slice(-6));
    const end = page.getByLabel("End of the serial number");
    await end.pressSequentially("N30052");
    await page.keyboard.press("Enter");
    await expect(
      page.getByText(/The serial number of tho-a does not end with these characters/),
    ).toBeVisible();
    await end.pressSequentially(ARMED.serial.slice(-6));
    await page.keyboard.press("Enter");
    await expect(page).toHaveURL(/builds\/netboot$/);
  });

  await test.step("the board follows the machine by itself, to its second start", async () => {
    await listening(page);
    const row = page.getByRole("table", { name: "Armed machines" }).getByRole("row").nth(1);
    await expect(row).toContainText("waiting, until");
    expect(await script("PPN30052")).toContain("differs from that of this machine");
    await expect(row).toContainText("refused: ");
    const [, token] = /\/t\/([\w-]{32})\/kernel /.exec(await script(ARMED.serial)) ?? [];
    expect(token).toBeDefined();
    const get = async (path: string) => (await ask(BOOT, `/t/${token}/${path}`)).status;
    // Somebody else who claims to be it is told nothing, and seen.
    expect(await script(ARMED.serial)).toContain("already started once");
    await expect(row).toContainText("second request");
    await expect(
      page.getByText(/^Second request for tho-a: .*The installation was already given to: /),
    ).toBeVisible();
    for (const path of ["kernel", "initrd/1"]) expect(await get(path)).toBe(200);
    expect(await get("answers/tho-a.ks")).toBe(200);
    for (const stage of ["installed", "first-boot", "done"]) expect(await get(`report/${stage}`)).toBe(200);
    await expect(row.getByRole("cell", { name: /^done \d+ \w+ \d{4}, / })).toBeVisible();
    expect(await script(ARMED.serial)).toContain("Already installed");
    await row.getByRole("link", { name: "Arm again" }).click();
    await expect(page.getByLabel("End of the serial number")).toBeVisible();
  });

  await test.step("asked for a code, it gives nothing to who shows none or another one, which stands there in red", async () => {
    await page.getByLabel("End of the serial number").pressSequentially(ARMED.serial.slice(-6));
    await expect(page.getByLabel(/^MAC and serial number only/)).toBeChecked();
    await expect(page.getByText(/The files contain no secret/)).toBeVisible();
    await page.getByLabel(/^Console code required/).check();
    await page.getByRole("button", { name: /^Arm tho-a/ }).click();
    await expect(page).toHaveURL(/builds\/netboot$/);
    const code = await page
      .getByText(/^Console code of tho-a: /)
      .locator("span")
      .innerText();
    expect(code).toMatch(/^[a-z]{4} [a-z]{4} [a-z]{4}$/);
    expect(await script(ARMED.serial)).toContain("read code");
    expect(await script(ARMED.serial, "bcdf bcdf bcdf")).toContain("Wrong console code");
    await expect(page.getByText(/^Wrong code for tho-a, once, last .*127\.0\.0\.1/)).toBeVisible();
    await page.getByText(/^Boot medium script with the code/).click();
    await expect(page.getByText(`set code ${code.replaceAll(" ", "")}`)).toBeVisible();
    expect(await script(ARMED.serial, code)).toMatch(/\/kernel /);
    await expect(page.getByText(/^Console code of/)).toHaveCount(0);
  });

  await test.step("called off, it gives nothing any more", async () => {
    await page.getByRole("button", { name: "Cancel" }).click();
    await expect(page.getByRole("table", { name: "Armed machines" })).toContainText("cancelled by");
    expect(await script(ARMED.serial)).toContain("The installation of this machine was cancelled");
  });
});

test("the site's DHCP server is told what each firmware starts, once it is known where the loaders are", async ({
  page,
}) => {
  await page.goto(`${server.base}/builds/netboot`);
  const section = page.getByRole("region", { name: "DHCP server configuration" });
  await expect(section).toContainText("Enter the server with the boot loaders");
  await section.getByLabel(/^TFTP server/).fill("tftp.example");
  await expect(section).toContainText("Enter an IPv4 address");
  await section.getByLabel(/^TFTP server/).fill("10.61.20.1");
  await section.locator("summary", { hasText: "Kea" }).click();
  await expect(section.locator("pre").first()).toBeAttached();
  await expect(section).toContainText(`"boot-file-name": "${BOOT}/boot.ipxe"`);
  await expect(section).not.toContainText("HTTPClient");
  await section.getByLabel(/^HTTP server with the boot loaders/).fill("http://10.61.20.1/boot");
  await expect(section).toContainText("http://10.61.20.1/boot/snponly.efi");
});

test("what the site's DHCP servers say is judged as it is pasted, and a machine that asked is made one", async ({
  page,
}) => {
  const query = "mac=02:61:14:00:00:77&serial=PPN30077&maker=Pippin&model=3&platform=efi";
  expect((await ask(BOOT, `/script?${query}`)).body.toString()).toContain("This machine is not armed");
  await page.goto(`${server.base}/builds/netboot`);
  await listening(page);
  const found = page.getByRole("list", { name: "Problems found" });
  await page
    .getByLabel("Configuration of server 1")
    .fill("dhcp-match=set:x64,option:client-arch,7\ndhcp-boot=tag:x64,undionly.kpxe\n");
  await expect(found).toContainText("architecture 7) gets undionly.kpxe");
  await page.getByRole("button", { name: "Add server" }).click();
  await page.getByLabel("Configuration of server 2").fill("hello");
  await expect(found).toContainText("server 2: Unknown format");

  const asked = page.getByRole("table", { name: "Boot requests from machines that are not armed" });
  await asked.locator("summary").click();
  await page.getByLabel("Name of the machine with the MAC 02:61:14:00:00:77").pressSequentially("tho-c");
  await page
    .getByLabel("Site of the machine with the MAC 02:61:14:00:00:77")
    .selectOption({ label: "Thornhope" });
  await page.getByRole("button", { name: "Add machine" }).click();
  await asked.getByRole("link", { name: "tho-c" }).click();
  await expect(page.getByRole("main")).toContainText("PPN30077");
});

test("several machines are armed on one page, each by the end of its own serial", async ({ page }) => {
  const tail = TELEMETRY.serial.slice(-6);
  await page.goto(`${server.base}/builds/netboot`);
  await page.getByRole("link", { name: "Arm several machines" }).click();
  const line = page.getByRole("row").filter({ hasText: TELEMETRY.name });
  await expect(line).toContainText("Sallow 960");
  await expect(page.getByRole("main")).not.toContainText(tail);
  const end = line.getByLabel(/^Last 6 characters of the serial number of wrk-tm1/);
  await end.pressSequentially("7K2M22");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("status")).toContainText(
    "0 of 1 machine armed; see the lines of the others for the reason",
  );
  await expect(line).toContainText("does not end with these characters");
  await end.pressSequentially(tail);
  await page.keyboard.press("Enter");
  await expect(page.getByRole("status")).toContainText("1 of 1 machine armed.");
  await page.getByRole("link", { name: "Network installations" }).click();
  await expect(page.getByRole("table", { name: "Armed machines" })).toContainText(TELEMETRY.name);
});

test("while thousands of connections that ask nothing come again and again, the application answers, and so do machines", async () => {
  const attack = await silentStorm([Number(new URL(BOOT).port)], 6000);
  try {
    for (let i = 0; i < 20; i += 1) {
      expect((await fetch(`${server.base}/api/health`)).status).toBe(200);
      // Where no place is free for a moment, a boot loader tries again.
      await expect.poll(() => script(ARMED.serial).catch(() => "")).toMatch(/^#!ipxe\n/);
    }
  } finally {
    attack.end();
  }
});

test("no page, route or file of the application is there over the boot address", async () => {
  const routes = readdirSync("src/app", { recursive: true, encoding: "utf8" })
    .filter((f) => /(^|\/)(page\.tsx|route\.ts)$/.test(f))
    .map((f) => `/${f.replace(/\/?(page\.tsx|route\.ts)$/, "").replace(/\[[^\]]+\]/g, "b-tho-a")}`);
  expect(routes.length).toBeGreaterThan(40);
  for (const path of [...routes, "/api/health", "/_next/static/chunks/main.js", "/icon.svg", "/collect.sh"]) {
    expect((await ask(server.base, path, { method: "HEAD" })).status, path).not.toBe(0);
    for (const method of ["GET", "POST"]) {
      const { status, headers, body } = await ask(BOOT, path, { method });
      expect([path, status, body.toString()]).toEqual([path, 404, "Not found.\n"]);
      expect(headers["set-cookie"]).toBeUndefined();
    }
  }
});
