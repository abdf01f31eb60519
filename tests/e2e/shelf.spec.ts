import { createHash } from "node:crypto";
import { copyFileSync, mkdirSync, readFileSync, truncateSync } from "node:fs";
import { expect, test, type Page } from "@playwright/test";
import { corpusFile } from "../support/corpus";
import { openQuiet } from "./margin";
import { DEMO, loadDemo, listening } from "./servers";

const folder = ".derrick/e2e-files";
test.beforeAll(async () => {
  mkdirSync(folder, { recursive: true });
  await loadDemo();
});

/** Opens the zone of the image; the key is heard only when the page has come to life. */
const openImageZone = async (page: Page, build: string) => {
  await page.goto(`${DEMO}/builds/${build}`);
  const field = page.locator('[data-field="image.id"]');
  await expect(async () => {
    if (!(await field.isVisible())) await page.keyboard.press("b");
    await expect(field).toBeVisible({ timeout: 1000 });
  }).toPass();
};

test("a real image is put on the shelf by dropping it, compared with its list, and a sheet plans its way with it", async ({
  page,
}) => {
  const buffer = readFileSync(corpusFile("p10-memtest-x64.iso"));
  const digest = createHash("sha256").update(buffer).digest("hex");
  const name = "lowland-server-7.9-x86_64.iso";
  await page.goto(`${DEMO}/images`);
  await page.setInputFiles('input[aria-label="Image file"]', {
    name,
    mimeType: "application/octet-stream",
    buffer,
  });
  await expect(page.getByRole("heading", { name: "Lowland Server 7.9" })).toBeVisible();
  await expect(page.getByText("Installed with the OS profile Lowland Server 7:")).toBeVisible();
  await expect(page.getByText(`Computed from ${name}.`)).toBeVisible();
  await expect(page.getByRole("row", { name: /USB stick, byte for byte/ })).toContainText("boots");
  await page.getByLabel("Or paste the published checksum list").fill(`SHA256 (${name}) = ${digest}\n`);
  await page.getByRole("button", { name: "Find this image" }).click();
  await expect(page.getByText("The file matches the published checksum.")).toBeVisible();
  await page.goto(`${DEMO}/images`);
  await expect(page.getByRole("row", { name: new RegExp(name) })).toContainText("matches");
  // The same file again is not a second entry.
  await page.setInputFiles('input[aria-label="Image file"]', {
    name,
    mimeType: "application/octet-stream",
    buffer,
  });
  await expect(page.getByRole("heading", { name: "Lowland Server 7.9" })).toBeVisible();
  await page.goto(`${DEMO}/images`);
  await expect(page.getByRole("row", { name: new RegExp(name) })).toHaveCount(1);

  await openImageZone(page, "b-tho-a");
  await page.getByLabel("Image", { exact: true }).selectOption({ label: "Lowland Server 7.9" });
  // The chosen way stands in one line; the others unfold beside it.
  await expect(page.locator('[data-field="image.way"]')).toContainText(
    /stick possible, loads in .* attended/,
  );
  await page.getByText("Compare boot sources, and for several machines").click();
  const ways = page.getByRole("table", { name: "Compare boot sources" });
  await expect(ways.getByRole("row", { name: /^USB stick/ })).toContainText("possible UEFI: a FAT partition");
  await expect(ways.getByRole("row", { name: /^virtual media/ })).toContainText(
    "There is no management controller.",
  );
  await expect(page.locator("article", { hasText: "Image not inspected" })).toHaveCount(0);
  await page.getByLabel("Number of machines").fill("40");
  await expect(page.getByText(/Less attended time: .*network boot for \d+ machines or more/)).toBeVisible();
  await expect(page.getByText(/at full speed; all 40 in parallel take/)).toBeVisible();
  await page
    .getByLabel("USB stick from the drive inventory")
    .selectOption({ label: "green stick, 31.5 GB (29.3 GiB)" });
  await expect(page.locator("article", { hasText: "Lowland Server 7.4 installer" })).toContainText(
    "erases all of it",
  );
  await page.getByRole("radio", { name: "it already holds the image" }).check({ force: true });
  await expect(page.locator("article", { hasText: "USB stick holds something else" })).toContainText(
    "holds: Lowland Server 7.4",
  );
  await page.getByRole("radio", { name: "the image is written to it" }).check({ force: true });
  await ways.getByText("network boot", { exact: true }).click();
  await expect(page.getByText("Lowland Server 7.9, by network")).toBeVisible();
  await expect(page.getByLabel("USB stick from the drive inventory")).toHaveCount(0);
});

test("a file of the server's folder is put on the shelf, and the server computes its checksum", async ({
  page,
}) => {
  const digest = createHash("sha256")
    .update(readFileSync(corpusFile("p17-data-udf-bridge.iso")))
    .digest("hex");
  await page.goto(`${DEMO}/images`);
  const files = page.getByRole("table", { name: "Files of the image folder" });
  const row = files.getByRole("row", { name: /p17-data-udf-bridge\.iso/ });
  await expect(row).toContainText("no");
  await row.getByRole("button", { name: "Add to library" }).click();
  await expect(row).toContainText("SHA-256 computed");
  await row.getByRole("link").click();
  await expect(page.getByText(digest)).toBeVisible();
  await expect(
    page.getByText("operator, on the server").or(page.getByText("on the server:")).first(),
  ).toBeVisible();
});

test("a checksum goes on while other pages are open, can be stopped, and is kept when it ends", async ({
  page,
}) => {
  const file = `${folder}/large-download.iso`;
  copyFileSync(corpusFile("p04-both-hybrid-gpt.iso"), file);
  truncateSync(file, 500_000_000);
  await page.goto(`${DEMO}/images/i-hopper-3`);
  await listening(page);
  const bar = page.getByText(/SHA-256 of large-download\.iso/);
  await page.setInputFiles('input[aria-label="Image file"]', file);
  await expect(bar).toContainText("of 500 MB");
  await page.getByRole("button", { name: "Stop" }).click();
  await expect(page.getByText("Stopped. The results of the inspection are kept.")).toBeVisible();
  await page.setInputFiles('input[aria-label="Image file"]', file);
  await expect(bar).toBeVisible();
  await page.getByRole("link", { name: "Machines", exact: true }).click();
  await expect(page.getByRole("heading", { level: 1, name: "Machines" })).toBeVisible();
  await page.getByRole("link", { name: "Images", exact: true }).click();
  await page.getByRole("link", { name: "Hopper Backup 3.2" }).click();
  await expect(page.getByText("Computed from large-download.iso.")).toBeVisible({ timeout: 60_000 });
  await expect(page.getByText("The file does NOT match the published checksum.")).toBeVisible();
});

test("the roads stand side by side, and the steps follow the one that is chosen", async ({ page }) => {
  await openImageZone(page, "b-wrk-hv2");
  const road = page.locator('[data-field="image.road"]');
  await expect(road).toContainText("install Cairn Hypervisor 6.7, then upgrade Cairn Hypervisor 9");
  await page.getByText(/Compare installation methods/).click();
  const roads = page.getByRole("table", { name: "Compare installation methods" });
  await expect(roads.getByRole("row", { name: /^method/ })).toContainText(
    "install Cairn Hypervisor 6.7then upgrade Cairn Hypervisor 9",
  );
  await openQuiet(page, "B");
  await expect(page.locator("article", { hasText: "Upgrade needs an intermediate version" })).toHaveCount(1);
  await roads.getByRole("radio", { name: "upgrade" }).check({ force: true });
  await expect(page.getByText("upgrade to Cairn Hypervisor 9.0, Ostler build, by virtual CD")).toBeVisible();
  await expect(page.locator("article", { hasText: "Upgrade needs an intermediate version" })).toHaveCount(0);
  await expect(page.locator("article", { hasText: "Target holds data" })).toHaveCount(0);
  await roads.getByRole("radio", { name: "convert" }).check({ force: true });
  await expect(page.locator("article", { hasText: "Installation method not available" })).toContainText(
    "No supported upgrade path",
  );
  await roads.getByRole("radio", { name: "fresh installation" }).check({ force: true });
  await expect(page.locator("article", { hasText: "Installation method not available" })).toHaveCount(0);
});

test("a profile is changed in the form: a wrong field is shown, the next edition kept, and sheets ask before they take it", async ({
  page,
}) => {
  await page.goto(`${DEMO}/images/profiles/lowland-server/7`);
  await page.getByText("In a form").click();
  const form = page.getByRole("form", { name: "Profile form" });
  await form.getByText("Installer screens").click();
  await form.getByText("Choose the disk to install on").click();
  const late = form.getByLabel("Maximum time (P90), s").and(page.locator('[name="screens.5.late"]'));
  await late.fill("10");
  await form.getByText("Installer screens").click();
  await form.getByRole("button", { name: "Save as the next revision" }).click();
  await expect(form.getByRole("alert")).toContainText(
    "screens.5.late: the maximum is below the expected time",
  );
  await expect(late).toBeFocused();
  await late.fill("444");
  await form.locator('[name="screens.5.title"]').fill("Choose the one disk to install on");
  await form.getByText("Firmware, boot targets and consoles").click();
  await form.getByLabel("Remove Other consoles 2").click();
  await form.getByText("Known faults").click();
  await form.getByRole("button", { name: "Add fault" }).click();
  await form.locator('[name="knownFaults.1.id"]').fill("long-names");
  await form
    .locator('[name="knownFaults.1.looks"]')
    .fill("The clock is an hour wrong after the first start.");
  await form.locator('[name="knownFaults.1.remedy"]').fill("Set the hardware clock to UTC.");
  await form.getByRole("button", { name: "Save as the next revision" }).click();
  await expect(page.getByText("Choose the one disk to install on").first()).toBeVisible();
  await expect(page.getByText("The clock is an hour wrong after the first start.").first()).toBeVisible();
  await expect(page.getByRole("link", { name: "Revision 2" })).toBeVisible();
  await page.getByRole("link", { name: "Revision 1" }).click();
  await expect(page.getByText("Profile revision 1; the newest is")).toBeVisible();
  const yaml = await (await page.request.get(`${DEMO}/api/v1/profiles/lowland-server/7`)).text();
  expect(yaml).toContain("title: Choose the one disk to install on");
  expect(yaml.split("\n")[0]).toMatch(/^# Lowland Server 7: a general Linux/);

  await openImageZone(page, "b-tho-b");
  await openQuiet(page, "B");
  await expect(page.locator("article", { hasText: "Newer profile revision" })).toHaveCount(1);
  await page.getByRole("button", { name: "Use revision 2" }).click();
  await expect(page.locator("article", { hasText: "Newer profile revision" })).toHaveCount(0);
  await expect(page.locator("article", { hasText: "Known fault" })).toHaveCount(1);
});

test("an edition that came in between is set beside what was typed, field by field, and nothing is lost", async ({
  page,
}) => {
  const open = async (tab: Page) => {
    await tab.goto(`${DEMO}/images/profiles/sedge-bsd/14`);
    await listening(tab);
    await tab.getByText("In a form").click();
    const form = tab.getByRole("form", { name: "Profile form" });
    await form.getByText("Firmware, boot targets and consoles").click();
    return { form, keep: form.getByRole("button", { name: "Save as the next revision" }) };
  };
  const mine = await open(page);
  const other = await page.context().newPage();
  const theirs = await open(other);
  await theirs.form.locator('[name="restart.likely"]').fill("41");
  await theirs.form.locator('[name="restart.late"]').fill("301");
  await theirs.keep.click();
  await expect(theirs.form.getByRole("status")).toHaveText("saved as revision 2");
  await other.close();

  await mine.form.locator('[name="restart.likely"]').fill("42");
  await mine.form.locator('[name="firmware.bootMenuSeconds"]').fill("7");
  await mine.keep.click();
  const slip = page.getByRole("dialog", { name: "This profile " });
  await expect(slip.getByRole("row", { name: "restart.likely" })).toContainText(/42.*41/);
  await slip.getByRole("row", { name: "restart.likely" }).getByRole("radio").last().check();
  await slip.getByRole("button", { name: "Save this choice" }).click();
  await expect(mine.form.locator('[name="restart.likely"]')).toHaveValue("41");
  await expect(mine.form.locator('[name="restart.late"]')).toHaveValue("301");
  await expect(mine.form.locator('[name="firmware.bootMenuSeconds"]')).toHaveValue("7");
  await mine.keep.click();
  await expect(mine.form.getByRole("status")).toHaveText("saved as revision 3");
});

test("U takes back what was typed in a profile's form, a line of a list as well, and Shift+U makes it again", async ({
  page,
}) => {
  await page.goto(`${DEMO}/images/profiles/millrace/12?form=open`);
  await listening(page);
  const form = page.getByRole("form", { name: "Profile form" });
  await form.getByText("Firmware, boot targets and consoles").click();
  const likely = form.locator('[name="restart.likely"]');
  const was = await likely.inputValue();
  await likely.fill("47");
  const lines = form.getByLabel(/^Remove Other consoles/);
  const before = await lines.count();
  await form.getByRole("button", { name: "Add line" }).last().click();
  await expect(lines).toHaveCount(before + 1);
  await form.getByRole("button", { name: "Save as the next revision" }).focus();
  await page.keyboard.press("u");
  await expect(lines).toHaveCount(before);
  await expect(likely).toHaveValue("47");
  await page.keyboard.press("u");
  await expect(likely).toHaveValue(was);
  await expect(form.getByRole("button", { name: "Undo" })).toBeDisabled();
  await page.keyboard.press("Shift+U");
  await expect(likely).toHaveValue("47");
  await page.reload();
  await listening(page);
  await form.getByText("Firmware, boot targets and consoles").click();
  await expect(likely).toHaveValue("47");
  await form.getByRole("button", { name: "Undo" }).click();
  await expect(likely).toHaveValue(was);
});

test("a profile is copied for another version, and a wrong text is told with its line", async ({ page }) => {
  await page.goto(`${DEMO}/images/profiles/millrace/12`);
  await page.getByRole("link", { name: "Duplicate as another version" }).click();
  await expect(page.getByRole("heading", { name: "Copy of Millrace 12" })).toBeVisible();
  const text = page.getByLabel("Profile as YAML");
  const yaml = await text.inputValue();
  await text.fill(yaml.replace("installer: text", "installer: spoken"));
  await page.getByRole("button", { name: "Check and save this profile" }).click();
  await expect(page.getByRole("alert").filter({ hasText: "installer" })).toContainText("installer: ");
  await text.fill(yaml.replace('version: "12"', 'version: "13"'));
  await page.getByRole("button", { name: "Check and save this profile" }).click();
  await expect(page.getByRole("heading", { name: "Millrace 13" })).toBeVisible();
});

test("a writing is noted on a USB stick of the inventory", async ({ page }) => {
  await page.goto(`${DEMO}/machines/drives/PBL3-7742`);
  await page.getByRole("button", { name: "Record an image write" }).click();
  const slip = page.getByRole("dialog");
  await slip.getByLabel("Image").selectOption({ label: "Hopper Backup 3.2" });
  await slip.getByLabel("Write mode").selectOption("uefi");
  await slip.getByRole("radio", { name: "MBR" }).check({ force: true });
  await slip.getByRole("radio", { name: "yes, identical" }).check({ force: true });
  await slip.getByRole("button", { name: "Save" }).click();
  await expect(page.getByText("verified")).toBeVisible();
  await expect(page.getByText("uefi, MBR")).toBeVisible();
  await page.getByLabel("Speed class").selectOption("USB 3");
  await expect(page.getByLabel("Speed class")).toHaveValue("USB 3");
});
