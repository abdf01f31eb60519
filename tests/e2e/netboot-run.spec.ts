import { readFileSync, rmSync, writeFileSync } from "node:fs";
import { expect, test } from "@playwright/test";
import { walkMachine } from "../../simulators/netboot-client/machine";
import { imageFolder } from "../support/boot-image";
import { TELEMETRY } from "../support/fleet";
import { loadDemoInto } from "../support/kill-storm";
import { OwnServer } from "../support/own-server";
import { listening, takesAnswer } from "./servers";

// The telemetry host of the demo: armed from its run, installed by itself, read back and handed over.

const BOOT = "http://127.0.0.1:4398";
const folder = imageFolder();
const server = new OwnServer("netboot-run", 4397, { DERRICK_BOOT_URL: BOOT, DERRICK_IMAGE_DIR: folder });

test.beforeAll(async () => {
  await server.start();
  await loadDemoInto(server.base);
});
test.afterAll(async () => {
  await server.end();
  rmSync(folder, { recursive: true, force: true });
});

/** The demo's bundle of a host with the same system, as the collector would write it on this one now. */
const readBack = (): string =>
  readFileSync("demo/tho-b-bundle.txt", "utf8")
    .replaceAll("tho-b", TELEMETRY.name)
    .replace(/^taken .*$/m, `taken ${new Date(Date.now() - 2000).toISOString().slice(0, 19)}Z`)
    .replace("SLW5129944", "SLW9600004")
    .replace("512110190592", "960197124096")
    .replace("02:61:14:00:00:02", TELEMETRY.mac)
    .replace('"10.61.20.12","prefixlen":26', '"10.61.10.40","prefixlen":24');

const tail = TELEMETRY.serial.slice(-6);

test("the telemetry host is armed from its run, ends the steps of it by itself, and is handed over", async ({
  page,
}, info) => {
  const bundle = info.outputPath("after.txt");
  await page.goto(`${server.base}/builds/${TELEMETRY.build}`);

  const head = page.locator("#zone-A").getByRole("button").first();
  if ((await head.getAttribute("aria-expanded")) !== "true") await head.click();
  await expect(page.getByRole("main")).toContainText("collected, and asked for when the machine is armed");
  await expect(page.getByRole("main")).not.toContainText(tail);

  await test.step("a person's steps first; the step for arming cannot be passed by pressing Enter", async () => {
    await page.getByRole("button", { name: "Start run" }).click();
    const step = page.getByRole("region", { name: "Current step" });
    for (const title of [
      ...["Identify the machine", "Verify the checksum", "Check that the DHCP server", "firmware settings"],
    ]) {
      await expect(step).toContainText(title);
      await expect(page.getByRole("main")).not.toContainText(tail);
      await takesAnswer(page);
      await page.keyboard.press("Enter");
    }
    await expect(step).toContainText("Arm wrk-tm1 for one installation");
    await page.keyboard.press("Enter");
    await page.keyboard.press("Enter");
    await expect(step.getByText("Nothing to confirm")).toBeVisible();
    await expect(step).toContainText("Arm wrk-tm1 for one installation");
  });

  const run = page.url();
  await test.step("it is armed by the end of its serial, and the run goes on by itself", async () => {
    await page.getByRole("link", { name: "Arm the machine" }).click();
    const main = page.getByRole("main");
    await expect(main).toContainText("Sallow 960");
    await expect(main).not.toContainText(tail);
    await page.getByLabel("End of the serial number").pressSequentially(tail);
    await page.keyboard.press("Enter");
    await expect(page).toHaveURL(/builds\/netboot$/);
    await page.goto(run);
    await listening(page);
    const step = page.getByRole("region", { name: "Current step" });
    await expect(step).toContainText("Choose network for the next boot only");
    const told = await walkMachine(
      {
        ...{ name: TELEMETRY.name, mac: TELEMETRY.mac, serial: TELEMETRY.serial, uuid: "" },
        ...{ maker: "Ostler", model: "R114", firmware: "uefi", fault: null },
      },
      { base: BOOT, pace: 2000 },
    );
    expect([told.installed, told.ended]).toEqual([1, "starts from its disk"]);
    // Nobody has touched this page since.
    await expect(step).toContainText("Restore the firmware settings: network boot off");
  });

  await test.step("the log names the boot service, and the rest is a person's", async () => {
    for (const title of [
      ...[
        "Restore the firmware settings",
        "Log in for the first time",
        "Install updates",
        "Boot once from power off",
      ],
      ...["Verify the installed system", "Hand over"],
    ]) {
      await expect(page.getByRole("region", { name: "Current step" })).toContainText(title);
      await takesAnswer(page);
      await page.keyboard.press("Enter");
    }
    await expect(page.getByText("all steps done")).toBeVisible();
    writeFileSync(bundle, readBack());
    await page.setInputFiles("input[type=file]", bundle);
    const put = page.getByRole("button", { name: "Record and stop the run" });
    await put.click();
    await expect(put).toHaveCount(0);
    const acceptance = page.getByLabel("Acceptance");
    await expect(acceptance.getByRole("row", { name: "System and version" })).toContainText("as planned");
    await expect(acceptance.getByRole("row", { name: "Host name" })).toContainText("as planned");
    const open = acceptance.getByRole("button", { name: /^Resolve: / });
    for (let left = await open.count(); left > 0; left -= 1) {
      await open.first().click();
      await page.keyboard.type("looked at by hand, at the console");
      await page.keyboard.press("Enter");
      await expect(open).toHaveCount(left - 1);
    }
    await page.getByLabel("Handed over to").fill("Control room");
    await expect(page.getByText(/unresolved/)).toHaveCount(0);
    await page.getByRole("button", { name: "Hand over" }).click();
    await page.getByRole("link", { name: "Open record" }).click();
    await expect(page.getByText("handed over to Control room", { exact: true })).toBeVisible();
    await expect(page.getByText("boot service").first()).toBeVisible();
  });
});
