import { readdirSync, readFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { expect, test, type Page } from "@playwright/test";
import { corpusFile } from "../support/corpus";
import { OwnServer } from "../support/own-server";
import { listening, saved } from "./servers";

const server = new OwnServer("first-day", 4394);
test.beforeAll(() => server.start());
test.afterAll(() => server.end());

/** A person who has never seen Derrick: does only what the page names, and counts each thing done. */
class Newcomer {
  actions = 0;
  constructor(readonly page: Page) {}

  async press(name: string | RegExp, role: "button" | "link" | "radio" = "button"): Promise<void> {
    this.actions += 1;
    await this.page.getByRole(role, { name }).first().click();
  }

  async bring(well: string, file: { name: string; buffer: Buffer }): Promise<void> {
    this.actions += 1;
    await this.page.getByLabel(well).setInputFiles({ ...file, mimeType: "application/octet-stream" });
  }

  async choose(label: string, option: RegExp): Promise<void> {
    this.actions += 1;
    const text = await this.page
      .getByLabel(label)
      .locator("option", { hasText: option })
      .first()
      .textContent();
    await this.page.getByLabel(label).selectOption({ label: text! });
  }

  /** The key of the guided line, until the page has heard it. */
  async goes(where: RegExp): Promise<void> {
    this.actions += 1;
    await expect(async () => {
      await this.page.keyboard.press(".");
      await expect(this.page).toHaveURL(where, { timeout: 1000 });
    }).toPass();
  }

  /** What the guided line says is next, once it says `words`. */
  async next(words: RegExp): Promise<void> {
    await expect(this.page.locator("main").getByRole("link", { name: words })).toBeVisible();
  }
}

const bundle = { name: "bundle.txt", buffer: readFileSync("demo/tho-b-bundle.txt") };
const image = { name: "brook-5-amd64.iso", buffer: readFileSync(corpusFile("p10-memtest-x64.iso")) };

test("from an empty Derrick to the answer card of one machine, by what the pages say alone", async ({
  page,
}) => {
  const who = new Newcomer(page);
  await page.goto(server.base);
  await listening(page);
  await expect(page.getByRole("heading", { name: "Which machine do you want to install?" })).toBeVisible();
  await who.bring("Drop bundle.txt here", bundle);
  const begins = page.getByRole("table", { name: "Initial values" });
  await expect(begins.getByRole("row", { name: /Network 10\.61\.20\.0\/26/ })).toContainText("hardware data");
  await expect(begins.getByRole("row", { name: /^Drive Sallow 512/ })).toContainText("the only one");
  await who.press("Create build sheet");
  await who.next(/drop its image file/);
  await who.bring("Image file", image);
  await who.next(/Choose the OS family/);
  await expect(page.getByText("neither file name nor contents identify it")).toBeVisible();
  await who.choose("Similar to", /general Linux, preseed/);
  // What the reading told is on the sheet, and says where it is from; an account was proposed.
  await who.next(/^C1, /);
  await page.keyboard.press("f");
  await expect(page.getByLabel("Console keyboard layout")).toHaveValue("us");
  await expect(page.getByText("found on the machine").first()).toBeVisible();
  await expect(page.getByLabel("Name of account 1")).toHaveValue("operator");
  await page.keyboard.press("h");
  await who.press("Answer card", "link");
  await expect(page.getByRole("heading", { name: "Answer card: brook-5-amd64 on tho-b" })).toBeVisible();
  // It is no leave to begin, and names the drive without the serial that the run asks for.
  await expect(page.getByRole("main").getByRole("alert")).toContainText("Do not use it yet");
  await expect(
    page.getByText(/Sallow 512, 512 GB .* Compare its serial number on the screen/).first(),
  ).toBeVisible();
  await expect(page.getByRole("main")).not.toContainText("5129944");
  await expect(page.getByRole("button", { name: "en_GB.UTF-8" })).toBeVisible();
  expect(who.actions).toBeLessThan(40);
});

test("the guided line leads through the stops to a revision, and goes when it is sent away", async ({
  page,
}) => {
  const who = new Newcomer(page);
  await page.goto(`${server.base}/builds`);
  await page.getByRole("link", { name: "(no subject)" }).click();
  await listening(page);
  await who.next(/^C1, Secure Boot/);
  // The key leads to where it is done: the stop's own note has the focus, and its remedy opens.
  await who.goes(/#C1$/);
  await page.keyboard.press("r");
  await expect(page.locator("#C1")).toContainText(/secure boot/i);
  const boot = page.getByRole("radiogroup", { name: /secure boot/i });
  await boot.getByText("off", { exact: true }).click();
  await saved(page);
  await who.next(/^D1, Target holds data: the only blocker/);
  await who.goes(/#D1$/);
  await page.getByLabel(/^Confirm erasing Sallow 512/).fill("SLW5129944");
  await page.getByRole("button", { name: "Confirm erase" }).click();
  await who.next(/^No blockers/);
  await who.goes(/\/card$/);
  await expect(page.getByRole("main").getByRole("alert")).toBeHidden();
  await page.goBack();
  await page.getByRole("button", { name: "Issue revision" }).click();
  await who.next(/start the run next to the console/);
  await page.getByRole("button", { name: "Hide these hints" }).click();
  await expect(page.getByText("Hide these hints")).toBeHidden();
  await page.reload();
  await listening(page);
  await expect(page.getByText("Hide these hints")).toBeHidden();
});

test("an image of no known family gets a family of its own, edited beside the steps that it makes", async ({
  page,
}) => {
  await page.goto(`${server.base}/builds`);
  await page.getByRole("link", { name: "(no subject)" }).click();
  await listening(page);
  await expect(async () => {
    if (!(await page.getByLabel("Image", { exact: true }).isVisible())) await page.keyboard.press("b");
    await page.getByRole("link", { name: "OS profile: Millrace 12" }).click({ timeout: 2000 });
  }).toPass();
  // What the image's own name tells is there already.
  await expect(page.getByLabel("Name of your OS family")).toHaveValue("Brook");
  await expect(page.getByLabel("Words in its file names")).toHaveValue("brook");
  await page.getByLabel("Version", { exact: true }).fill("5");
  await page.getByRole("button", { name: "Duplicate and edit" }).click();
  await expect(page.getByRole("heading", { name: "Brook 5" })).toBeVisible();
  const makes = page.getByRole("region", { name: "Resulting steps" });
  const steps = makes.getByRole("list", { name: "Resulting steps" });
  await expect(steps).toContainText("Start the text installer");
  await expect(makes).toContainText("all installation methods except a fresh installation");
  await page.getByText("Installer screens", { exact: true }).click();
  await page.getByText("Start the text installer").first().click();
  await page.locator('[name="screens.0.title"]').fill("Start the brook installer");
  await expect(steps).toContainText("Start the brook installer");
  // What is typed is there again after a reload, and a mistake says what a sheet would lack.
  await page.reload();
  await expect(steps).toContainText("Start the brook installer");
  await page.getByText("Installer screens", { exact: true }).click();
  await page.getByText("Start the brook installer").first().click();
  await page.locator('[name="screens.0.title"]').fill("Start {the.wrong} installer");
  await expect(makes.getByRole("alert")).toContainText(
    "the steps of the installer, and with them the answer card",
  );
  await page.locator('[name="screens.0.title"]').fill("Start the brook installer");
  await page.getByRole("button", { name: "Save as the next revision" }).click();
  await expect(page.getByRole("status").filter({ hasText: "saved as revision 2" })).toBeVisible();
  await page.goto(`${server.base}/builds`);
  await page.getByRole("link", { name: "(no subject)" }).click();
  await expect(page.getByRole("main")).toContainText("brook-5-amd64");
});

const demoFolders = () => readdirSync(tmpdir()).filter((name) => name.startsWith("derrick-demo-"));

test("the demo's data are looked at beside one's own: nothing can be changed, and nothing stays", async ({
  browser,
}) => {
  const other = new OwnServer("look", 4389);
  await other.start();
  const page = await browser.newPage();
  try {
    const before = demoFolders();
    await page.goto(other.base);
    await page.getByRole("button", { name: "Open the demo" }).click();
    await expect(page.getByText("Nothing can be changed here")).toBeVisible();
    await page.goto(`${other.base}/sites/s-works`);
    await page.getByLabel("Room").fill("another room");
    await expect(page.getByText("This is the read-only demo").first()).toBeVisible();
    // Another browser sees its own, empty Derrick meanwhile.
    const own = await browser.newContext();
    const second = await own.newPage();
    await second.goto(`${other.base}/machines`);
    await expect(second.getByText("No machine yet.")).toBeVisible();
    await own.close();
    page.on("dialog", (dialog) => void dialog.accept());
    await page.getByRole("button", { name: "Back to your own data" }).click();
    await expect(page.getByRole("heading", { name: "Which machine do you want to install?" })).toBeVisible();
    await page.goto(`${other.base}/machines`);
    await expect(page.getByText("No machine yet.")).toBeVisible();
    await expect.poll(demoFolders).toEqual(before);
  } finally {
    await page.close();
    await other.end();
  }
});
