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
  await expect(page.getByRole("heading", { name: "Which machine is to be built?" })).toBeVisible();
  await who.bring("Drop bundle.txt here", bundle);
  const begins = page.getByRole("table", { name: "What the sheet begins with" });
  await expect(begins.getByRole("row", { name: /Network 10\.61\.20\.0\/26/ })).toContainText("the reading");
  await expect(begins.getByRole("row", { name: /^Drive Sallow 512/ })).toContainText("the only one");
  await who.press("Begin its build sheet");
  await who.next(/drop its image file/);
  await who.bring("Image file", image);
  await who.next(/which family/);
  await expect(page.getByText("neither its name nor its inside tells it")).toBeVisible();
  await who.choose("It is like", /general Linux, preseed/);
  // What the reading told is on the sheet, and says where it is from; an account was proposed.
  await who.next(/^C1, /);
  await page.keyboard.press("f");
  await expect(page.getByLabel("Keyboard of the console")).toHaveValue("us");
  await expect(page.getByText("as the machine was read to have it").first()).toBeVisible();
  await expect(page.getByLabel("Name of account 1")).toHaveValue("operator");
  await page.keyboard.press("h");
  await who.press("the answer card", "link");
  await expect(page.getByRole("heading", { name: "Answer card: brook-5-amd64 on tho-b" })).toBeVisible();
  // It is no leave to begin, and names the drive without the serial that the run asks for.
  await expect(page.getByRole("main").getByRole("alert")).toContainText("Not to be used yet");
  await expect(page.getByText(/Sallow 512, 512 GB .* Read its serial on the screen/).first()).toBeVisible();
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
  await who.next(/^C1, Secure boot/);
  // The key leads to where it is done: the stop's own note has the focus, and its remedy opens.
  await who.goes(/#C1$/);
  await page.keyboard.press("r");
  await expect(page.locator("#C1")).toContainText(/secure boot/i);
  const boot = page.getByRole("radiogroup", { name: /secure boot/i });
  await boot.getByText("off", { exact: true }).click();
  await saved(page);
  await who.next(/^D1, The target holds data: the only stop/);
  await who.goes(/#D1$/);
  await page.getByLabel(/^To agree to erase Sallow 512/).fill("SLW5129944");
  await page.getByRole("button", { name: "Agree to erase" }).click();
  await who.next(/^Nothing stops it/);
  await who.goes(/\/card$/);
  await expect(page.getByRole("main").getByRole("alert")).toBeHidden();
  await page.goBack();
  await page.getByRole("button", { name: "Issue revision" }).click();
  await who.next(/start the run beside the console/);
  await page.getByRole("button", { name: "no more of this" }).click();
  await expect(page.getByText("no more of this")).toBeHidden();
  await page.reload();
  await listening(page);
  await expect(page.getByText("no more of this")).toBeHidden();
});

test("an image of no known family gets a family of its own, edited beside the steps that it makes", async ({
  page,
}) => {
  await page.goto(`${server.base}/builds`);
  await page.getByRole("link", { name: "(no subject)" }).click();
  await listening(page);
  await expect(async () => {
    if (!(await page.getByLabel("Image", { exact: true }).isVisible())) await page.keyboard.press("b");
    await page.getByRole("link", { name: "its family: Millrace 12" }).click({ timeout: 2000 });
  }).toPass();
  // What the image's own name tells is there already.
  await expect(page.getByLabel("Name of your family")).toHaveValue("Brook");
  await expect(page.getByLabel("Words in its files' names")).toHaveValue("brook");
  await page.getByLabel("Its version").fill("5");
  await page.getByRole("button", { name: "Make it mine" }).click();
  await expect(page.getByRole("heading", { name: "Brook 5" })).toBeVisible();
  const makes = page.getByRole("region", { name: "What it makes" });
  const steps = makes.getByRole("list", { name: "Steps that it makes" });
  await expect(steps).toContainText("Start the text installer");
  await expect(makes).toContainText("every road but a fresh installation");
  await page.getByText("Screens of the installer", { exact: true }).click();
  await page.getByText("Start the text installer").first().click();
  await page.locator('[name="screens.0.title"]').fill("Start the brook installer");
  await expect(steps).toContainText("Start the brook installer");
  // What is typed is there again after a reload, and a mistake says what a sheet would lack.
  await page.reload();
  await expect(steps).toContainText("Start the brook installer");
  await page.getByText("Screens of the installer", { exact: true }).click();
  await page.getByText("Start the brook installer").first().click();
  await page.locator('[name="screens.0.title"]').fill("Start {the.wrong} installer");
  await expect(makes.getByRole("alert")).toContainText(
    "the steps of the installer, and with them the answer card",
  );
  await page.locator('[name="screens.0.title"]').fill("Start the brook installer");
  await page.getByRole("button", { name: "Keep as the next edition" }).click();
  await expect(page.getByRole("status").filter({ hasText: "kept as edition 2" })).toBeVisible();
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
    await page.getByRole("button", { name: "Look at the demo’s data" }).click();
    await expect(page.getByText("nothing can be changed, and nothing stays")).toBeVisible();
    await page.goto(`${other.base}/sites/s-works`);
    await page.getByLabel("Room").fill("another room");
    await expect(page.getByText("These are the made-up data of the demo").first()).toBeVisible();
    // Another browser sees its own, empty Derrick meanwhile.
    const own = await browser.newContext();
    const second = await own.newPage();
    await second.goto(`${other.base}/machines`);
    await expect(second.getByText("No machine yet.")).toBeVisible();
    await own.close();
    page.on("dialog", (dialog) => void dialog.accept());
    await page.getByRole("button", { name: "Back to your own" }).click();
    await expect(page.getByRole("heading", { name: "Which machine is to be built?" })).toBeVisible();
    await page.goto(`${other.base}/machines`);
    await expect(page.getByText("No machine yet.")).toBeVisible();
    await expect.poll(demoFolders).toEqual(before);
  } finally {
    await page.close();
    await other.end();
  }
});
