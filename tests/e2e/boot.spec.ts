import { expect, test, type Page } from "@playwright/test";
import { DEMO, listening, loadDemo, saved } from "./servers";

test.beforeAll(() => loadDemo());

/** A moment of the picture, and the stop that has the focus. */
const moment = (page: Page, name: string) => page.locator(`#zone-C [data-row="${name}"]`);
const focused = (page: Page) =>
  page.evaluate(() => (document.activeElement as HTMLElement | null)?.dataset.station ?? null);

async function into(page: Page, build: string): Promise<void> {
  await page.goto(`${DEMO}/builds/${build}`);
  await listening(page);
  await page.keyboard.press("p");
  await expect.poll(() => focused(page)).not.toBeNull();
}

test("keys move the path: a medium put first for good ends in the installer again, and U takes it back", async ({
  page,
}) => {
  await into(page, "b-wrk-hv2");
  const story = page.locator("[data-story]");
  await expect(story).toHaveText(
    "The next restart, once, boots the installer of Cairn Hypervisor 6.7 from the virtual CD; after that it boots Cairn Hypervisor 6.7 from the boot module.",
  );
  await page.keyboard.press("ArrowDown");
  await page.keyboard.press("ArrowDown");
  await expect(moment(page, "first restart").locator(":focus")).toHaveText("boot module");
  await page.keyboard.press("ArrowRight");
  await expect.poll(() => focused(page)).toBe("medium");
  await page.keyboard.press("Shift+ArrowLeft");
  await expect(moment(page, "first restart")).toContainText("boots the installer of Cairn Hypervisor 6.7");
  await expect.poll(() => focused(page)).toBe("medium");
  await expect(page.locator("article", { hasText: "Media first in the permanent boot order" })).toHaveCount(
    1,
  );
  await saved(page);
  await page.keyboard.press("u");
  await expect(moment(page, "first restart")).toContainText(
    "boots Cairn Hypervisor 6.7 from the boot module",
  );
  await saved(page);
});

test("letters change once or for good, the mode, secure boot and the way, and the path follows at once", async ({
  page,
}) => {
  await into(page, "b-wrk-hv2");
  const install = moment(page, "to install");
  await page.keyboard.press("o");
  await expect(moment(page, "power loss")).toContainText("boots the installer");
  await page.keyboard.press("o");
  await expect(moment(page, "power loss")).toContainText("boots Cairn Hypervisor 9 from the boot module");
  await page.keyboard.press("w");
  await expect(install.getByRole("button").first()).not.toContainText("virtual CD");
  for (let left = 3; left > 0; left--) await page.keyboard.press("w");
  await expect(install.getByRole("button").first()).toContainText("virtual CD");
  const secure = page.locator('[data-field="boot.secureBoot"]');
  await page.keyboard.press("s");
  await expect(secure.getByRole("radio", { name: "on", exact: true })).toBeChecked();
  await page.keyboard.press("s");
  await expect(secure.getByRole("radio", { name: "off for the installation, then on again" })).toBeChecked();
  await page.keyboard.press("s");
  await page.keyboard.press("l");
  await expect(secure).toHaveCount(0);
  await expect(page.getByText("No tool tells the order of a legacy firmware")).toHaveCount(0);
  await page.keyboard.press("l");
  await expect(secure).toHaveCount(1);
  await saved(page);
});

test("a stick that was written for another mode is passed over, and the sheet says what starts instead", async ({
  page,
}) => {
  await into(page, "b-tho-a");
  const install = moment(page, "to install");
  await expect(install).toContainText("blue stick 3 has no loader at the default path.");
  await expect(page.locator("[data-story]")).toContainText("the medium does not boot");
  await expect(moment(page, "now")).toContainText("Only if  Sallow 512");
});

test("a device is dragged before another, and what is tried before the system says why it does not start", async ({
  page,
}) => {
  await into(page, "b-wrk-hv2");
  const after = moment(page, "power loss");
  await after
    .getByRole("button", { name: /R5-DATA/ })
    .dragTo(after.getByRole("button", { name: /boot module/ }));
  await expect(after.getByRole("button").first()).toContainText("R5-DATA");
  await expect(after).toContainText("R5-DATA has no FAT file system");
  await expect(after).toContainText("boots Cairn Hypervisor 9 from the boot module");
  await saved(page);
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(after.getByRole("button").first()).toContainText("boot module");
  await saved(page);
});

test("what was found and done at a setting is kept, and told as text with what stood there before", async ({
  page,
  context,
}) => {
  await context.grantPermissions(["clipboard-read", "clipboard-write"]);
  await into(page, "b-wrk-hv2");
  const settings = page.locator('[data-field="boot.settings"]');
  await settings.getByText("settings result from this sheet").click();
  await expect(settings.getByRole("row", { name: /^Secure Boot/ })).toContainText(
    "Cairn Hypervisor 6 does not boot with it",
  );
  await settings.getByLabel("After power loss, as found").fill("Last State");
  await settings.getByLabel("After power loss, done").selectOption("set as planned");
  await saved(page);
  await page.reload();
  await listening(page);
  await page.keyboard.press("p");
  await settings.getByText("settings result from this sheet").click();
  await expect(settings.getByLabel("After power loss, as found")).toHaveValue("Last State");
  await settings.getByRole("button", { name: "Copy as text" }).click();
  await expect(settings.getByText("copied")).toBeVisible();
  expect(await page.evaluate(() => navigator.clipboard.readText())).toContain(
    "After power loss: on; found Last State (entered at the machine); set",
  );
  await settings.getByRole("link", { name: "Print" }).click();
  const paper = page.getByRole("table", { name: "Firmware settings" });
  await expect(paper.getByRole("row", { name: /^After power loss/ })).toContainText("Last State");
  // What the site lays down for its machines has joined the sheet, with its reason.
  await expect(paper.getByRole("row", { name: /^Fan profile/ })).toContainText("Works, for all machines");
});

test("the list of the firmware says whose each entry is, and what deleting it would take away", async ({
  page,
}) => {
  await into(page, "b-wrk-hv2");
  const list = page.getByRole("region", { name: "Boot entries of the firmware" });
  await list.getByText("3 entries").click();
  const row = list.getByRole("row", { name: /0003 Boot module/ });
  await expect(row).toContainText("Cairn Hypervisor 6.7 no longer boots");
  await expect(row).toContainText("stale: the installation writes a new partition table");
});

test("the schools of boot devices stand side by side with what this machine tells, and the second card has its price", async ({
  page,
}) => {
  await into(page, "b-wrk-hv1");
  const schools = page.getByRole("region", { name: "Compare boot devices" });
  await schools.getByText("mirrored cards, discouraged by the profile").click();
  const mirror = schools.getByRole("row", { name: /^mirrored cards/ });
  await expect(mirror).toContainText("38 %, about 40 min left");
  await expect(mirror).toContainText("this sheet");
  await expect(schools.getByRole("row", { name: /^one drive/ })).toContainText(
    "all drives are behind a RAID controller",
  );
  for (const [label, value] of [
    ["Annual failure rate (AFR) of one device, %", "5"],
    ["Downtime cost per day", "2000"],
    ["Price of a second device", "90"],
  ] as const) {
    await schools.getByLabel(label).fill(value);
    await schools.getByLabel(label).press("Tab");
  }
  await expect(schools).toContainText("One device: 5 % × 2,000 = 100 per year.");
  await expect(schools).toContainText("A second device for 90 pays off after 0.9 years.");
  await saved(page);
});

test("a second percentage tells when the boot cards are whole, and until when their red light is expected", async ({
  page,
}) => {
  await into(page, "b-wrk-hv1");
  const cards = page.getByRole("region", { name: "Boot flash cards" });
  await expect(cards).toContainText("2 readings, 1.5 % per minute");
  await expect(cards).toContainText(/expected until .*; a fault afterwards/);
  await cards.getByLabel("Percentage shown").fill("100");
  await page.keyboard.press("Enter");
  await expect(cards.locator("[data-sync]")).toHaveCount(0);
  await expect(cards).toContainText("whole");
  await saved(page);
  await cards.getByRole("button", { name: "Undo last entry" }).click();
  await expect(cards.locator('[data-sync="under way"]')).toBeVisible();
  await saved(page);
});
