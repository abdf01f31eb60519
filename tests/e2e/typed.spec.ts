import { expect, test, type Locator, type Page } from "@playwright/test";
import { DEMO, loadDemo } from "./servers";

test.beforeAll(loadDemo);

/** A fold of the machine's sheet, opened by its heading where it is not open yet. */
async function fold(page: Page, title: string): Promise<Locator> {
  const own = page.locator("details", { has: page.locator("summary", { hasText: title }) }).last();
  await expect(async () => {
    if ((await own.getAttribute("open")) === null) await own.locator("summary").first().click();
    await expect(own).toHaveAttribute("open", "", { timeout: 1000 });
  }).toPass();
  return own;
}

test("place, keys and controller of a machine are typed once and stand on its builds", async ({ page }) => {
  await page.goto(`${DEMO}/machines/m-wrk-tm1`);
  const place = await fold(page, "Place, role and keys");
  await place.getByLabel("Place", { exact: true }).fill("rack A, unit 9");
  await place.getByLabel("Boot-menu key").fill("F9");
  const seconds = place.getByLabel("Seconds from power on to the keys");
  await seconds.fill("soon");
  await seconds.press("Tab");
  await expect(seconds).toHaveAttribute("aria-invalid", "true");
  await seconds.fill("75");
  await seconds.press("Tab");
  await place.getByLabel("Noise, in words").fill("a whistle at full load");
  await place.getByRole("button", { name: "Keep" }).click();
  await expect(place.getByRole("button", { name: "Keep" })).toHaveCount(0);
  await page.reload();
  await expect((await fold(page, "Place, role and keys")).getByLabel("Boot-menu key")).toHaveValue("F9");

  const controller = await fold(page, "Management controller");
  await controller.getByLabel("Virtual media").selectOption("not licensed");
  await controller.getByLabel("Media was read at, MB/s").fill("2.4");
  await controller.getByRole("button", { name: "Keep" }).click();
  await page.reload();
  const again = await fold(page, "Management controller");
  await expect(again.getByLabel("Virtual media")).toHaveValue("not licensed");
  await expect(again.getByLabel("Media was read at, MB/s")).toHaveValue("2.4");
});

test("what is due stands on the first page until it is done", async ({ page }) => {
  await page.goto(`${DEMO}/machines/m-tho-b`);
  const dates = await fold(page, "Dates");
  await dates.getByLabel("What is due").fill("swap of the fan filter");
  await dates.getByLabel("Day").fill("2020-02-03");
  await dates.getByRole("button", { name: "Set the day" }).click();
  await expect(dates.getByText("; overdue")).toBeVisible();
  await page.goto(`${DEMO}/`);
  await expect(page.getByRole("link", { name: /swap of the fan filter: tho-b/ })).toBeVisible();
  await page.goto(`${DEMO}/machines/m-tho-b`);
  await (await fold(page, "Dates")).getByRole("button", { name: "done today" }).first().click();
  await expect(page.getByText(/; done on/)).toBeVisible();
  await page.goto(`${DEMO}/`);
  await expect(page.getByRole("link", { name: /swap of the fan filter/ })).toHaveCount(0);
});

test("a firmware that is looked at wants a decision, and a postponed one a day", async ({ page }) => {
  await page.goto(`${DEMO}/machines/m-tho-a`);
  const firmware = await fold(page, "Firmware decisions");
  await firmware.getByLabel("Part").fill("system firmware");
  await firmware.getByLabel("Available version").fill("99.1");
  await firmware.getByRole("button", { name: "Look at it" }).click();
  await expect(page.locator("article", { hasText: "nobody has decided" })).toHaveCount(1);
  await firmware.getByLabel("Decision about system firmware").selectOption("postponed");
  await firmware.getByLabel("Day for system firmware").fill("2021-01-01");
  await expect(page.locator("article", { hasText: "postponed to 2021-01-01" })).toHaveCount(1);
  await firmware.getByLabel("Decision about system firmware").selectOption("not wanted");
  await expect(page.locator("article", { hasText: "postponed to 2021-01-01" })).toHaveCount(0);
});

test("a delivery note is compared with what the machine says, and bays are drawn as they are typed", async ({
  page,
}) => {
  await page.goto(`${DEMO}/machines/m-cl-ws1`);
  const note = await fold(page, "Delivery note");
  await note.getByRole("textbox", { name: "Delivery note" }).fill("CL-118");
  await note.getByLabel("Cores").fill("99");
  await note.getByLabel("Cores").press("Tab");
  await note.getByLabel("Memory", { exact: true }).fill("much");
  await note.getByLabel("Memory", { exact: true }).press("Tab");
  await expect(note.getByLabel("Memory", { exact: true })).toHaveAttribute("aria-invalid", "true");
  await note.getByLabel("Memory", { exact: true }).fill("512 GiB");
  await note.getByLabel("Memory", { exact: true }).press("Tab");
  await note.getByRole("button", { name: "Keep the note" }).click();
  const table = note.getByRole("table", { name: "Delivery note and machine" });
  await expect(table.getByRole("row", { name: /cores/i })).toContainText("99");
  await expect(page.locator("article", { hasText: "Not as delivered" }).first()).toBeVisible();

  const bays = await fold(page, "Bays of the chassis");
  const blocks = await bays.getByRole("group").count();
  await bays.getByRole("button", { name: "add a block of bays" }).click();
  await bays.getByLabel("Block", { exact: true }).last().fill("cage");
  await bays.getByLabel("Across").last().fill("3");
  await bays.getByLabel("Across").last().press("Tab");
  await bays.getByRole("button", { name: "Keep the bays" }).click();
  await expect(bays.getByRole("button", { name: "Keep the bays" })).toHaveCount(0);
  await page.reload();
  await expect((await fold(page, "Bays of the chassis")).getByRole("group")).toHaveCount(blocks + 1);
});

test("a site is made, its networks typed; what cannot be is refused with its place and nothing is lost", async ({
  page,
}) => {
  await page.goto(`${DEMO}/sites`);
  await page.getByLabel("A new site").fill("Harbour");
  await page.getByRole("button", { name: "Add this site" }).click();
  await expect(page.getByRole("heading", { level: 1, name: "Harbour" })).toBeVisible();
  await page.getByRole("button", { name: "add a segment" }).click();
  await page.getByLabel("Segment").fill("Harbour office");
  await page.getByLabel("Prefix").fill("10.61.40.0/24");
  await page.getByLabel("Gateway").fill("10.61.41.1");
  const vlan = page.getByLabel("VLAN");
  await vlan.fill("5000");
  await vlan.press("Tab");
  await expect(page.getByText("1 to 4094")).toBeVisible();
  await vlan.fill("40");
  await vlan.press("Tab");
  const dhcp = page.getByLabel("DHCP ranges");
  await dhcp.fill("from 5 on");
  await dhcp.press("Tab");
  await expect(page.getByText('"from 5 on": a range is two addresses')).toBeVisible();
  await dhcp.fill("10.61.40.100 - 10.61.40.150");
  await dhcp.press("Tab");
  await page.getByRole("button", { name: "Keep", exact: true }).click();
  await expect(
    page.getByRole("alert").filter({ hasText: "the gateway lies outside the prefix" }),
  ).toBeVisible();
  await expect(page.getByLabel("Segment")).toHaveValue("Harbour office");
  await page.getByLabel("Gateway").fill("10.61.40.1");
  await page.getByRole("button", { name: "Keep", exact: true }).click();
  await expect(page.getByRole("status").filter({ hasText: "kept" })).toBeVisible();
  await page.reload();
  await expect(page.getByLabel("Prefix")).toHaveValue("10.61.40.0/24");
  await expect(page.getByLabel("DHCP ranges")).toHaveValue("10.61.40.100 - 10.61.40.150");
});
