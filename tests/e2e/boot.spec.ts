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
    "The next restart, once, starts the installer of Cairn Hypervisor 6.7 from the virtual CD; after that it starts Cairn Hypervisor 6.7 from the boot module.",
  );
  await page.keyboard.press("ArrowDown");
  await page.keyboard.press("ArrowDown");
  await expect(moment(page, "first restart").locator(":focus")).toHaveText("boot module");
  await page.keyboard.press("ArrowRight");
  await expect.poll(() => focused(page)).toBe("medium");
  await page.keyboard.press("Shift+ArrowLeft");
  await expect(moment(page, "first restart")).toContainText("starts the installer of Cairn Hypervisor 6.7");
  await expect.poll(() => focused(page)).toBe("medium");
  await expect(page.locator("article", { hasText: "Media first for good" })).toHaveCount(1);
  await saved(page);
  await page.keyboard.press("u");
  await expect(moment(page, "first restart")).toContainText(
    "starts Cairn Hypervisor 6.7 from the boot module",
  );
  await saved(page);
});

test("letters change once or for good, the mode, secure boot and the way, and the path follows at once", async ({
  page,
}) => {
  await into(page, "b-wrk-hv2");
  const install = moment(page, "to install");
  await page.keyboard.press("o");
  await expect(moment(page, "power loss")).toContainText("starts the installer");
  await page.keyboard.press("o");
  await expect(moment(page, "power loss")).toContainText("starts Cairn Hypervisor 9 from the boot module");
  await page.keyboard.press("w");
  await expect(install.getByRole("button").first()).not.toContainText("virtual CD");
  for (let left = 3; left > 0; left--) await page.keyboard.press("w");
  await expect(install.getByRole("button").first()).toContainText("virtual CD");
  const secure = page.locator('[data-field="boot.secureBoot"]');
  await page.keyboard.press("s");
  await expect(secure.getByRole("radio", { name: "on", exact: true })).toBeChecked();
  await page.keyboard.press("s");
  await expect(secure.getByRole("radio", { name: "off, and on again after the installation" })).toBeChecked();
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
  await expect(install).toContainText(
    "blue stick 3 has no loader at the path where firmware looks by itself.",
  );
  await expect(page.locator("[data-story]")).toContainText("and the medium is not started");
  await expect(moment(page, "now")).toContainText("Only if something that starts stands on Sallow 512");
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
  await expect(after).toContainText("R5-DATA has no FAT file system where the firmware looks");
  await expect(after).toContainText("starts Cairn Hypervisor 9 from the boot module");
  await saved(page);
  await page.getByRole("button", { name: "undo" }).click();
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
  await settings.getByText("settings follow from this sheet").click();
  await expect(settings.getByRole("row", { name: /^Secure boot/ })).toContainText(
    "Cairn Hypervisor 6 does not start with it",
  );
  await settings.getByLabel("After power loss, as found").fill("Last State");
  await settings.getByLabel("After power loss, done").selectOption("set as wanted");
  await saved(page);
  await page.reload();
  await listening(page);
  await page.keyboard.press("p");
  await settings.getByText("settings follow from this sheet").click();
  await expect(settings.getByLabel("After power loss, as found")).toHaveValue("Last State");
  await settings.getByRole("button", { name: "copy as text" }).click();
  await expect(settings.getByText("copied")).toBeVisible();
  expect(await page.evaluate(() => navigator.clipboard.readText())).toContain(
    "After power loss: on; found Last State (typed at the machine); set",
  );
  await settings.getByRole("link", { name: "as a page to print" }).click();
  const paper = page.getByRole("table", { name: "Settings of the firmware" });
  await expect(paper.getByRole("row", { name: /^After power loss/ })).toContainText("Last State");
  // What the site lays down for its machines has joined the sheet, with its reason.
  await expect(paper.getByRole("row", { name: /^Fan profile/ })).toContainText("Works, for every machine");
});

test("the list of the firmware says whose each entry is, and what deleting it would take away", async ({
  page,
}) => {
  await into(page, "b-wrk-hv2");
  const list = page.getByRole("region", { name: "List of the firmware" });
  await list.getByText("3 entries").click();
  const row = list.getByRole("row", { name: /0003 Boot module/ });
  await expect(row).toContainText("Cairn Hypervisor 6.7 would not be started any more");
  await expect(row).toContainText("stale: the installation writes a new table");
});

test("the schools of boot devices stand side by side with what this machine tells, and the second card has its price", async ({
  page,
}) => {
  await into(page, "b-wrk-hv1");
  const schools = page.getByRole("region", { name: "Boot devices side by side" });
  await schools.getByText("mirrored cards, discouraged by the profile").click();
  const mirror = schools.getByRole("row", { name: /^mirrored cards/ });
  await expect(mirror).toContainText("38 %, about 40 min left");
  await expect(mirror).toContainText("this sheet");
  await expect(schools.getByRole("row", { name: /^one drive/ })).toContainText(
    "all stand behind a controller",
  );
  for (const [label, value] of [
    ["One device fails in a year, %", "5"],
    ["A day without the machine costs", "2000"],
    ["A second device costs", "90"],
  ] as const) {
    await schools.getByLabel(label).fill(value);
    await schools.getByLabel(label).press("Tab");
  }
  await expect(schools).toContainText("One device: 5 % × 2,000 = 100 a year.");
  await expect(schools).toContainText("The second, for 90, has paid for itself after 0.9 years.");
  await saved(page);
});

test("a second percentage tells when the boot cards are whole, and until when their red light is expected", async ({
  page,
}) => {
  await into(page, "b-wrk-hv1");
  const cards = page.getByRole("region", { name: "Boot cards" });
  await expect(cards).toContainText("2 readings, 1.5 % a minute");
  await expect(cards).toContainText(/expected until .*; a fault afterwards/);
  await cards.getByLabel("Percentage shown now").fill("100");
  await page.keyboard.press("Enter");
  await expect(cards.locator("[data-sync]")).toHaveCount(0);
  await expect(cards).toContainText("whole");
  await saved(page);
  await cards.getByRole("button", { name: "take the last one back" }).click();
  await expect(cards.locator('[data-sync="under way"]')).toBeVisible();
  await saved(page);
});
