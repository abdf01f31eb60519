import { expect, test, type Locator, type Page } from "@playwright/test";
import { DEMO, keeping, listening, loadDemo, saved } from "./servers";

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
  const place = await fold(page, "Location, role and keys");
  await place.getByLabel("Location", { exact: true }).fill("rack A, unit 9");
  await place.getByLabel("Boot menu key").fill("F9");
  const seconds = place.getByLabel("Boot-key prompt after power-on, s");
  await seconds.fill("soon");
  await seconds.press("Tab");
  await expect(seconds).toHaveAttribute("aria-invalid", "true");
  await seconds.fill("75");
  await seconds.press("Tab");
  await place.getByLabel("Noise").fill("a whistle at full load");
  await saved(page);
  await expect(place.getByLabel("Boot menu key")).toBeVisible();
  await page.reload();
  await expect((await fold(page, "Location, role and keys")).getByLabel("Boot menu key")).toHaveValue("F9");

  const controller = await fold(page, "Management controller");
  await controller.getByLabel("Virtual media", { exact: true }).selectOption("not licensed");
  await controller.getByLabel("Measured virtual media speed, MB/s").fill("2.4");
  await controller.getByLabel("Measured virtual media speed, MB/s").press("Tab");
  await saved(page);
  await page.reload();
  const again = await fold(page, "Management controller");
  await expect(again.getByLabel("Virtual media", { exact: true })).toHaveValue("not licensed");
  await expect(again.getByLabel("Measured virtual media speed, MB/s")).toHaveValue("2.4");
});

test("what is due stands on the first page until it is done", async ({ page }) => {
  await page.goto(`${DEMO}/machines/m-tho-b`);
  const dates = await fold(page, "Dates");
  await dates.getByLabel("Task").fill("swap of the fan filter");
  await dates.getByLabel("Due date").fill("2020-02-03");
  await dates.getByRole("button", { name: "Add date" }).click();
  await expect(dates.getByText("; overdue")).toBeVisible();
  await saved(page);
  await page.goto(`${DEMO}/`);
  await expect(page.getByRole("link", { name: /swap of the fan filter: tho-b/ })).toBeVisible();
  await page.goto(`${DEMO}/machines/m-tho-b`);
  await (await fold(page, "Dates")).getByRole("button", { name: "Done today" }).first().click();
  await expect(page.getByText(/; done on/)).toBeVisible();
  await saved(page);
  await page.goto(`${DEMO}/`);
  await expect(page.getByRole("link", { name: /swap of the fan filter/ })).toHaveCount(0);
});

test("a firmware that is looked at wants a decision, and a postponed one a day", async ({ page }) => {
  await page.goto(`${DEMO}/machines/m-tho-a`);
  const firmware = await fold(page, "Accepted firmware settings");
  await firmware.getByLabel("Part").fill("system firmware");
  await firmware.getByLabel("Available version").fill("99.1");
  await firmware.getByRole("button", { name: "Check" }).click();
  await expect(page.locator("article", { hasText: "no decision is recorded" })).toHaveCount(1);
  await firmware.getByLabel("Decision for system firmware").selectOption("postponed");
  await firmware.getByLabel("Due date of system firmware").fill("2021-01-01");
  await expect(page.locator("article", { hasText: "postponed to 1 Jan 2021" })).toHaveCount(1);
  await firmware.getByLabel("Decision for system firmware").selectOption("not wanted");
  await expect(page.locator("article", { hasText: "postponed to 1 Jan 2021" })).toHaveCount(0);
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
  const table = note.getByRole("table", { name: "Delivery note and machine" });
  await expect(table.getByRole("row", { name: /cores/i })).toContainText("99");
  await expect(page.locator("article", { hasText: "Delivery does not match" }).first()).toBeVisible();

  const bays = await fold(page, "Drive bays");
  const blocks = await bays.getByRole("group").count();
  await bays.getByRole("button", { name: "Add bay block" }).click();
  await bays.getByLabel("Block", { exact: true }).last().fill("cage");
  await bays.getByLabel("Columns").last().fill("3");
  await bays.getByLabel("Columns").last().press("Tab");
  await saved(page);
  await page.reload();
  await expect((await fold(page, "Drive bays")).getByRole("group")).toHaveCount(blocks + 1);
});

test("a site is made, its networks typed; what cannot be is refused with its place and nothing is lost", async ({
  page,
}) => {
  await page.goto(`${DEMO}/sites`);
  await page.getByLabel("New site").fill("Harbour");
  await page.getByRole("button", { name: "Add this site" }).click();
  await expect(page.getByRole("heading", { level: 1, name: "Harbour" })).toBeVisible();
  await listening(page);
  const add = page.getByRole("button", { name: "Add network" });
  await page.getByLabel("Add a network").fill("Harbour office");
  await page.getByLabel("Subnet").fill("10.61.40");
  await expect(add).toBeDisabled();
  await page.getByLabel("Subnet").fill("10.61.40.0/24");
  await add.click();
  await saved(page);
  const gateway = page.getByLabel("Gateway");
  await gateway.fill("none");
  await gateway.press("Tab");
  await expect(page.getByText("an address, or nothing")).toBeVisible();
  await gateway.fill("10.61.41.1");
  await gateway.press("Tab");
  await expect(
    page
      .getByRole("alert")
      .filter({ hasText: "Networks, no. 1, gateway: the gateway is outside the subnet" }),
  ).toBeVisible();
  await expect(keeping(page)).toHaveText(
    "Not saved: correct the marked field. Your entry is kept in this browser.",
  );
  await expect(gateway).toHaveValue("10.61.41.1");
  await gateway.fill("10.61.40.1");
  await gateway.press("Tab");
  await saved(page);
  const vlan = page.getByLabel("VLAN");
  await vlan.fill("5000");
  await vlan.press("Tab");
  await expect(page.getByText("1 to 4094")).toBeVisible();
  await vlan.fill("40");
  await vlan.press("Tab");
  const dhcp = page.getByRole("table", { name: "DHCP ranges of Harbour office" });
  const cell = (name: string) => dhcp.getByRole("textbox", { name });
  await cell("From, row 1").fill("from 5 on");
  await cell("From, row 1").press("Tab");
  await cell("To, row 1").fill("10.61.40.150");
  await expect(page.getByText('"from 5 on" is not an address')).toBeHidden();
  await cell("To, row 1").press("Enter");
  await expect(page.getByText('"from 5 on" is not an address')).toBeVisible();
  await expect(keeping(page)).toHaveText("One field is invalid and not saved");
  await cell("From, row 1").fill("10.61.40.100");
  await cell("From, row 1").press("Enter");
  await expect(cell("From, row 2")).toBeFocused();
  await saved(page);
  await page.reload();
  await expect(
    page.getByRole("group", { name: "Harbour office" }).getByLabel("Subnet", { exact: true }),
  ).toHaveValue("10.61.40.0/24");
  await expect(page.getByLabel("Network", { exact: true })).toHaveValue("Harbour office");
  await expect(cell("From, row 1")).toHaveValue("10.61.40.100");
  await expect(cell("To, row 1")).toHaveValue("10.61.40.150");
});

test("two people write one site: both versions are offered, the choice is kept, and U takes it back", async ({
  page,
  context,
}) => {
  await page.goto(`${DEMO}/sites/s-works`);
  await listening(page);
  const other = await context.newPage();
  await other.goto(`${DEMO}/sites/s-works`);
  await listening(other);
  const room = (p: Page) => p.getByLabel("Room");
  const before = await room(page).inputValue();
  // The second window hears nothing while it is typed in: its change is made on the version before.
  await other.route("**/sites/s-works", (route) =>
    route.request().method() === "POST" ? route.abort() : route.continue(),
  );
  await room(other).fill("the old pump house");
  await expect(keeping(other)).toHaveText(/^Not saved/, { timeout: 10_000 });
  await room(page).fill("the new pump house");
  await saved(page);
  await other.unroute("**/sites/s-works");
  const slip = other.getByRole("dialog", { name: "This site " });
  await expect(slip).toContainText("the new pump house", { timeout: 10_000 });
  await slip.getByRole("radio").first().check();
  await slip.getByRole("button", { name: "Save this choice" }).click();
  await saved(other);
  await expect(room(page)).toHaveValue("the old pump house");
  await other.bringToFront();
  await other.keyboard.press("Escape");
  await other.keyboard.press("u");
  await expect(room(other)).toHaveValue("the new pump house");
  await other.keyboard.press("Shift+U");
  await expect(room(other)).toHaveValue("the old pump house");
  await room(other).fill(before);
  await saved(other);
});

test("a machine's form takes back with U what was typed in it, and an image's as well", async ({ page }) => {
  for (const [path, label] of [
    ["/machines/m-wrk-hv2", "Location"],
    ["/images/i-hopper-3", "Notes"],
  ] as const) {
    await page.goto(DEMO + path);
    await listening(page);
    const field =
      label === "Location"
        ? (await fold(page, "Location, role and keys")).getByLabel(label, { exact: true })
        : page.getByLabel(label, { exact: true });
    const before = await field.inputValue();
    await field.fill("written by a test");
    await saved(page);
    await field.press("Escape");
    await page.keyboard.press("u");
    await expect(field).toHaveValue(before);
    await saved(page);
  }
});

test("what was typed a moment before another page is opened is kept", async ({ page }) => {
  await page.goto(`${DEMO}/images/i-hopper-3`);
  await listening(page);
  const notes = page.getByLabel("Notes", { exact: true });
  const before = await notes.inputValue();
  for (const text of ["typed on the way out", before]) {
    await notes.fill(text);
    await page.keyboard.press("Escape");
    await page.keyboard.press("4");
    await expect(page).toHaveURL(`${DEMO}/images`);
    await page.goBack();
    await expect(notes).toHaveValue(text);
  }
});
