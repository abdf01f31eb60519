import { expect, test, type Page } from "@playwright/test";
import { DEMO, keeping, listening, loadDemo, saved, takesAnswer } from "./servers";

test.beforeAll(loadDemo);

/** Opens a page and waits until it listens to keys: the frame asks for hands as soon as it does. */
async function visit(page: Page, path: string): Promise<void> {
  const alive = page.waitForResponse("**/api/v1/hands");
  await page.goto(DEMO + path);
  await alive;
}

const slip = (page: Page, name: string) => page.getByRole("dialog", { name });
/** Opens a slip by its key and closes it again: what is pressed next must belong to the sheet. */
async function openAndClose(page: Page, key: string, name: string): Promise<void> {
  await page.keyboard.press(key);
  await expect(slip(page, name)).toBeVisible();
  // The key opened the slip, and is not the first letter of what is written there.
  for (const field of await slip(page, name).locator("input, textarea").all())
    await expect(field).toHaveValue("");
  await closed(page, name);
}

/** Escape, and the frame after it: until then the browser still holds the focus in the slip that is gone. */
async function closed(page: Page, name: string): Promise<void> {
  await page.keyboard.press("Escape");
  await expect(slip(page, name)).toHaveCount(0);
  await expect.poll(() => page.evaluate(() => document.activeElement?.closest("dialog") ?? null)).toBeNull();
}

/** Every key that the sheet of keys names, and the test below that presses it. */
const PRESSED: Record<string, readonly string[]> = {
  Everywhere: ["/", "1 to 6", "?", "Esc"],
  Editing: ["U", "Shift U"],
  // lists.spec presses these.
  Lists: ["↓ ↑", "Enter"],
  // "." stands on a first sheet only: first-day.spec presses it.
  "Build sheet": ["A to K", "] [", "R", "T", ".", "M", "P", "X"],
  "Boot diagram": ["arrows", "Shift ← →", "O", "L", "S", "W"],
  Machine: ["F R", "arrows", "Enter", "Esc"],
  Run: ["Enter", "D", "N", "R", "S", "T", "C", "K", "L"],
};

test("the sheet of keys names no key that is not pressed here", async ({ page }) => {
  await visit(page, "/");
  await page.keyboard.press("?");
  const groups = await slip(page, "Keyboard shortcuts")
    .locator("section")
    .evaluateAll((all) =>
      all.map((s) => [
        s.querySelector("h3")!.textContent!,
        [...s.querySelectorAll("dt")].map((d) => d.textContent!.replace(/\s+/g, " ").trim()),
      ]),
    );
  expect(Object.fromEntries(groups)).toEqual(PRESSED);
});

const SCREENS = [
  "/",
  "/sites/s-works",
  "/machines",
  "/machines/m-wrk-hv2",
  "/images",
  "/builds",
  "/bench",
  "/builds/b-wrk-hv2",
  "/runs/r-wrk-hv1",
];

for (const path of SCREENS)
  test(`the keys of every screen work on ${path}, also right after a slip was closed`, async ({ page }) => {
    await visit(page, path);
    await page.keyboard.press("/");
    // Typed at once, as a person does: every character belongs to the field.
    await page.keyboard.type("bed");
    await expect(slip(page, "Find").getByRole("combobox")).toHaveValue("bed");
    await closed(page, "Find");
    await openAndClose(page, "?", "Keyboard shortcuts");
    await openAndClose(page, "/", "Find");
    const [digit, url] = path === "/sites/s-works" ? ["3", "/machines"] : ["2", "/sites"];
    await page.keyboard.press(digit);
    await expect(page).toHaveURL(DEMO + url);
  });

test("the keys of the build sheet work, and Escape leaves a field", async ({ page }) => {
  await visit(page, "/builds/b-wrk-hv2");
  for (const letter of "ABCDEFHIJK") {
    const head = page.locator(`#zone-${letter}`).getByRole("button").first();
    const before = await head.getAttribute("aria-expanded");
    await page.keyboard.press(letter.toLowerCase());
    await expect(head, letter).toHaveAttribute("aria-expanded", before === "true" ? "false" : "true");
  }
  await page.keyboard.press("g");
  await page.keyboard.press("]");
  await expect(page.locator("article:focus")).toHaveAttribute("data-label", "A1");
  await page.keyboard.press("]");
  await page.keyboard.press("[");
  await expect(page.locator("article:focus")).toHaveAttribute("data-label", "A1");
  await page.keyboard.press("r");
  await expect(page.locator("article:focus")).toContainText("Fix ");
  // What has no cure is left as it is; the cure itself is pressed in sheet.spec.
  await page.keyboard.press("t");
  await expect(page.locator("article:focus")).toContainText("Fix ");
  await page.keyboard.press("x");
  await expect(page.locator("[data-main-action]")).toBeFocused();
  const subject = page.getByLabel("What is this build for?");
  await subject.click();
  await page.keyboard.press("Escape");
  await expect(subject).not.toBeFocused();
  await page.setViewportSize({ width: 640, height: 800 });
  await expect(page.locator("article").first()).toBeHidden();
  await page.keyboard.press("m");
  await expect(page.locator("article").first()).toBeVisible();
});

test("F6: undo takes back one change after the other, and never its own", async ({ page }) => {
  await visit(page, "/builds/b-wrk-hv2");
  const subject = page.getByLabel("What is this build for?");
  const was = await subject.inputValue();
  for (const words of ["first words", "second words"]) {
    await subject.fill(words);
    await expect(page.getByText("saving…")).toHaveCount(0);
    await saved(page);
  }
  await page.reload();
  await expect(subject).toHaveValue("second words");
  for (const words of ["third", "fourth"]) {
    await subject.fill(words);
    await page.waitForResponse((r) => r.request().method() === "POST" && r.ok());
    await saved(page);
  }
  await subject.press("Escape");
  await page.keyboard.press("u");
  await expect(subject).toHaveValue("third");
  await page.keyboard.press("Shift+u");
  await expect(subject).toHaveValue("fourth");
  await page.keyboard.press("u");
  await expect(subject).toHaveValue("third");
  await page.keyboard.press("u");
  await expect(subject).toHaveValue("second words");
  // Nothing of this window is left to be taken back.
  await page.keyboard.press("u");
  await expect(page.getByRole("button", { name: "Undo" })).toBeDisabled();
  await expect(subject).toHaveValue("second words");
  await subject.fill(was);
  await saved(page);
});

test("the keys of the machine's drawing work", async ({ page }) => {
  await visit(page, "/machines/m-wrk-hv2");
  await page.keyboard.press("f");
  const first = await page.evaluate(() => document.activeElement?.getAttribute("aria-label"));
  expect(first).toBeTruthy();
  await page.keyboard.press("ArrowRight");
  expect(await page.evaluate(() => document.activeElement?.getAttribute("aria-label"))).not.toBe(first);
  await page.keyboard.press("Enter");
  const card = page.getByRole("complementary").getByRole("heading").first();
  await expect(card).toBeVisible();
  await page.keyboard.press("Escape");
  await page.keyboard.press("r");
  expect(await page.evaluate(() => document.activeElement?.hasAttribute("data-tile"))).toBe(true);
});

test("the keys of the run work, each also right after a slip was closed", async ({ page, context }) => {
  await context.grantPermissions(["clipboard-read", "clipboard-write"]);
  await page.setViewportSize({ width: 640, height: 800 });
  await visit(page, "/runs/r-wrk-hv1");
  const title = page.getByLabel("Current step").getByRole("heading", { level: 2 });
  await expect(title).toHaveText("Wait: the system is upgraded");
  await openAndClose(page, "n", "Note");
  await openAndClose(page, "d", "What do you see?");
  await openAndClose(page, "r", "Measurement");
  await openAndClose(page, "s", "Skip this step");
  await page.keyboard.press("l");
  await expect(page.getByRole("list", { name: "Log" })).toBeVisible();
  await page.keyboard.press("k");
  await expect(
    page.getByRole("region", { name: "Answer card" }).locator("[aria-current=step]"),
  ).toBeVisible();
  await page.keyboard.press("t");
  await expect(page.getByText("timer started")).toBeVisible();
  // A slip that was opened by its button: Enter belongs to the step again, and does not press the button once more.
  await page.getByRole("button", { name: /^Note/ }).click();
  await page.getByLabel("In a few words").fill("seen and understood");
  await page.keyboard.press("Control+Enter");
  await expect(page.getByText("Note: seen and understood")).toBeVisible();
  await page.keyboard.press("Enter");
  await expect(title).toHaveText("Unmap the virtual CD");
  await takesAnswer(page);
  await expect(page.getByRole("dialog")).toHaveCount(0);
  await page.keyboard.press("Enter");
  await expect(title).toHaveText("Restart into the installed system");
  await takesAnswer(page);
  await page.keyboard.press("Enter");
  await expect(title).toHaveText("Open the management page");
  await page.keyboard.press("c");
  await expect.poll(() => page.evaluate(() => navigator.clipboard.readText())).toBe("https://10.61.10.21/");
});

test("a wait that ends is told in the title of every page, by sound and notification where wanted", async ({
  page,
  context,
}) => {
  await context.grantPermissions(["notifications"]);
  await page.addInitScript(() => {
    const told: string[] = [];
    Object.assign(window, { told });
    localStorage.setItem("derrick-alarm-notice", "yes");
    window.Notification = Object.assign(
      function (title: string, more: { body: string }) {
        told.push(`${title} | ${more.body}`);
      },
      { permission: "granted", requestPermission: async () => "granted" },
    ) as never;
  });
  const hands = { at: "2026-01-01T08:00:00.000Z", what: "Unmap the virtual CD", late: false };
  const runs = [{ id: "r-wrk-hv1", machine: "wrk-hv1", hands, waits: true }];
  const answer = { now: "2026-01-01T08:00:01.000Z", runs };
  await page.route("**/api/v1/hands", (route) => route.fulfill({ json: answer }));
  await visit(page, "/images");
  await expect(page).toHaveTitle(/^▲ Images – Derrick$/);
  await expect(page.getByRole("link", { name: "Action needed: wrk-hv1" })).toHaveAttribute(
    "href",
    "/runs/r-wrk-hv1",
  );
  expect(await page.evaluate(() => (window as never as { told: string[] }).told)).toEqual([
    "wrk-hv1: action needed | Unmap the virtual CD",
  ]);
  answer.now = "2026-01-01T07:59:00.000Z";
  await page.reload();
  await expect(page).not.toHaveTitle(/▲/);
});

test("F9: what a site's lists cannot read stays in its field, and the rest is kept", async ({ page }) => {
  await visit(page, "/sites/s-works");
  const circuits = page.getByRole("table", { name: "Circuits" });
  const cell = (name: string) => circuits.getByRole("textbox", { name });
  const last = (await circuits.getByRole("row").count()) - 1;
  const room = page.getByLabel("Room");
  const before = await room.inputValue();
  await cell(`Circuit, row ${last}`).fill("A9");
  // It is read when the row is left: until then the tab is not closed without a question.
  const asks = () => page.evaluate(() => !dispatchEvent(new Event("beforeunload", { cancelable: true })));
  expect(await asks()).toBe(true);
  await room.fill("another room");
  // The room is saved, and the page does not say that all is.
  await expect(keeping(page)).toHaveText("One field is invalid and not saved");
  await expect(cell(`Limit, W, row ${last}`)).toHaveAttribute("aria-invalid", "true");
  await expect(page.getByText("a number of watts above 0, for example 2300")).toBeVisible();
  await expect(cell(`Circuit, row ${last}`)).toHaveValue("A9");
  // Two rows of a spreadsheet, pasted over the row that does not fit.
  await cell(`Circuit, row ${last}`).evaluate((field) => {
    const clipboardData = new DataTransfer();
    clipboardData.setData("text", "A9\t900\nA10\t1200\n");
    field.dispatchEvent(new ClipboardEvent("paste", { clipboardData, bubbles: true, cancelable: true }));
  });
  await expect(cell(`Circuit, row ${last + 1}`)).toHaveValue("A10");
  await cell(`Circuit, row ${last + 1}`).press("ArrowUp");
  await expect(cell(`Circuit, row ${last}`)).toBeFocused();
  await page.keyboard.press("Enter");
  await saved(page);
  expect(await asks()).toBe(false);
  await page.reload();
  await expect(cell(`Limit, W, row ${last + 1}`)).toHaveValue("1200");
  await expect(room).toHaveValue("another room");
  await listening(page);
  await page.getByRole("button", { name: `Remove row ${last + 1} of Circuits` }).click();
  await page.getByRole("button", { name: `Remove row ${last} of Circuits` }).click();
  await room.fill(before);
  await saved(page);
  await expect(circuits.getByRole("row")).toHaveCount(last + 1);
});
